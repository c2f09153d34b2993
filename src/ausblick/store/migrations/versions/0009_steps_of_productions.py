"""A production is undone and redone step by step, like a set-up and the kit."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "production_states",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("production_id", sa.Integer, sa.ForeignKey("productions.id", ondelete="CASCADE"), nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("ahead", sa.Boolean, nullable=False, server_default=sa.false()),
    )
    op.create_index("ix_production_states_production_id", "production_states", ["production_id"])
    op.execute(
        "INSERT INTO production_states (production_id, document, ahead) "
        "SELECT id, before, 0 FROM productions WHERE before IS NOT NULL"
    )
    op.drop_column("productions", "before")
