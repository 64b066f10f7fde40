"""Documents and their revisions."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "document",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("type", sa.String(16), nullable=False, index=True),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("cursor", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("changed_at", sa.DateTime(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
    )
    op.create_table(
        "revision",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("document_id", sa.String(32), sa.ForeignKey("document.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("did", sa.String(120), nullable=False),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.UniqueConstraint("document_id", "number"),
    )


def downgrade() -> None:
    op.drop_table("revision")
    op.drop_table("document")
