"""Simulated test keys, kept with the plan that they are of."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "test_keys",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("setup_id", sa.Integer, sa.ForeignKey("setups.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("plan", sa.Text, nullable=False),
        sa.Column("report", sa.Text, nullable=False),
        sa.Column("stored", sa.String(200), nullable=False),
        sa.Column("created", sa.DateTime, nullable=False),
    )
