"""The work at the bench: the steps piece by piece, what each must measure, what to do with a piece that is wrong, and practice."""
