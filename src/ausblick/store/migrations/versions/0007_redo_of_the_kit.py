"""States of the kit that were undone are kept, so that redo leads back to them."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.add_column("kit_states", sa.Column("ahead", sa.Boolean, nullable=False, server_default=sa.false()))
