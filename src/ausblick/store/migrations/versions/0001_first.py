"""Set-ups, revisions, frames."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "setups",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("current_id", sa.Integer),
        sa.Column("created", sa.DateTime, nullable=False),
        sa.Column("changed", sa.DateTime, nullable=False),
        sa.Column("deleted", sa.DateTime),
    )
    op.create_table(
        "revisions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("setup_id", sa.Integer, sa.ForeignKey("setups.id", ondelete="CASCADE"), nullable=False),
        sa.Column("parent_id", sa.Integer, sa.ForeignKey("revisions.id")),
        sa.Column("plan", sa.Text, nullable=False),
        sa.Column("origin", sa.String(16), nullable=False),
        sa.Column("name", sa.String(200)),
        sa.Column("created", sa.DateTime, nullable=False),
    )
    op.create_index("ix_revisions_setup", "revisions", ["setup_id", "parent_id"])
    op.create_table(
        "frames",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("setup_id", sa.Integer, sa.ForeignKey("setups.id", ondelete="CASCADE"), nullable=False),
        sa.Column("name", sa.String(200), nullable=False),
        sa.Column("stored", sa.String(200), nullable=False),
        sa.Column("reading", sa.Text, nullable=False),
        sa.Column("created", sa.DateTime, nullable=False),
    )
    op.create_index("ix_frames_setup_id", "frames", ["setup_id"])
