"""Items of the lists before and after a take that somebody ticked by hand."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "ticks",
        sa.Column("setup_id", sa.Integer, sa.ForeignKey("setups.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("item", sa.String(60), primary_key=True),
    )
