"""How near is the same: every tolerance that more than one place goes by. One that a single place needs stands there, with a name."""

# What rounding in double precision leaves of nothing: mm, degrees, or a share of a length or an area.
NOTHING = 1e-9
# Less than this is nothing at all: the solver's last steps, determinants.
ZERO = 1e-12
# Two places, mm, two angles, degrees, or two directions that are the same to anybody.
SAME = 1e-6
# On a plane or a line, mm, when points were worked out on different ways.
ON_LINE = 1e-7
# Wood that two boards only seem to share, cubic mm.
CRUMB_MM3 = 1e-3
# Of the smaller of two boards' wood: thinner than any saw, thicker than what rounding leaves.
SHARED = 1e-8
# The smallest gap that is told, mm.
UNSEEN_MM = 5e-4
