"""Productions with their takes."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "productions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("before", sa.Text, nullable=True),
        sa.Column("changed", sa.DateTime, nullable=False),
        sa.Column("deleted", sa.DateTime, nullable=True),
        sqlite_autoincrement=True,
    )
    op.create_table(
        "takes",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("production_id", sa.Integer, sa.ForeignKey("productions.id", ondelete="CASCADE"), nullable=False),
        sa.Column("key", sa.String(80), nullable=False, unique=True),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("created", sa.DateTime, nullable=False),
        sa.Column("deleted", sa.DateTime, nullable=True),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_takes_production_id", "takes", ["production_id"])
