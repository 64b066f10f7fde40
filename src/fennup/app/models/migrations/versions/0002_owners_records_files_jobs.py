"""Whose a document is, what form its bodies have and what was done as data; records, files, jobs; the saw becomes the workshop."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    # Added in place: a table that is made anew would take with it, by cascade, all that refers to it.
    op.add_column("document", sa.Column("owner", sa.String(32), nullable=False, server_default="workshop"))
    op.add_column("document", sa.Column("example", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.create_index("ix_document_owner", "document", ["owner"])
    op.add_column("revision", sa.Column("form", sa.Integer(), nullable=False, server_default="1"))
    # What was done used to be kept in words: they are kept as what was once said.
    op.execute("UPDATE revision SET did = json_object('said', did)")
    op.execute("UPDATE document SET type = 'workshop' WHERE type = 'saw'")
    op.create_table(
        "record",
        sa.Column("id", sa.String(36), primary_key=True),
        sa.Column("project_id", sa.String(32), nullable=False, index=True),
        sa.Column("key", sa.String(120), nullable=False),
        sa.Column("fingerprint", sa.String(32), nullable=False),
        sa.Column("type", sa.String(32), nullable=False),
        sa.Column("device", sa.String(64), nullable=False),
        sa.Column("device_time", sa.String(40), nullable=False),
        sa.Column("received", sa.String(40), nullable=False),
        sa.Column("body", sa.Text(), nullable=False),
    )
    op.execute(
        "CREATE TRIGGER record_never_changes BEFORE UPDATE ON record BEGIN SELECT RAISE(ABORT, 'records are only added'); END"
    )
    op.execute(
        "CREATE TRIGGER record_never_goes BEFORE DELETE ON record BEGIN SELECT RAISE(ABORT, 'records are only added'); END"
    )
    op.create_table(
        "file",
        sa.Column("id", sa.String(36), primary_key=True),
        sa.Column("project_id", sa.String(32), nullable=False, index=True),
        sa.Column("name", sa.String(200), nullable=False),
        sa.Column("media_type", sa.String(80), nullable=False),
        sa.Column("sha256", sa.String(64), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
    )
    op.create_table(
        "job",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("type", sa.String(32), nullable=False),
        sa.Column("based_on", sa.String(80), nullable=False, index=True),
        sa.Column("given", sa.Text(), nullable=False),
        sa.Column("state", sa.String(16), nullable=False),
        sa.Column("progress", sa.Float(), nullable=False),
        sa.Column("result", sa.Text(), nullable=True),
        sa.Column("tries", sa.Integer(), nullable=False),
        sa.Column("asked_at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    for name in ("job", "file", "record"):
        op.drop_table(name)
    op.execute("UPDATE document SET type = 'saw' WHERE type = 'workshop'")
    op.drop_column("revision", "form")
    op.drop_index("ix_document_owner", "document")
    op.drop_column("document", "example")
    op.drop_column("document", "owner")
