"""What is deleted can be brought back: frames are marked, and earlier states of the kit are kept."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.add_column("frames", sa.Column("deleted", sa.DateTime, nullable=True))
    op.create_table(
        "kit_states",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
    )
