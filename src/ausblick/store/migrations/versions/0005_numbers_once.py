"""Numbers of frames and test keys are given once: a removed one's never comes again."""

from alembic import op

revision = "0005"
down_revision = "0004"

FRAMES = """
CREATE TABLE frames_new (
    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
    setup_id INTEGER NOT NULL REFERENCES setups (id) ON DELETE CASCADE,
    name VARCHAR(200) NOT NULL,
    stored VARCHAR(200) NOT NULL,
    reading TEXT NOT NULL,
    created DATETIME NOT NULL
)
"""
TEST_KEYS = """
CREATE TABLE test_keys_new (
    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
    setup_id INTEGER NOT NULL REFERENCES setups (id) ON DELETE CASCADE,
    plan TEXT NOT NULL,
    report TEXT NOT NULL,
    stored VARCHAR(200) NOT NULL,
    created DATETIME NOT NULL
)
"""


def upgrade() -> None:
    for table, made, columns in (
        ("frames", FRAMES, "id, setup_id, name, stored, reading, created"),
        ("test_keys", TEST_KEYS, "id, setup_id, plan, report, stored, created"),
    ):
        op.execute(made)
        op.execute(f"INSERT INTO {table}_new ({columns}) SELECT {columns} FROM {table}")
        op.execute(f"DROP TABLE {table}")
        op.execute(f"ALTER TABLE {table}_new RENAME TO {table}")
        op.create_index(f"ix_{table}_setup_id", table, ["setup_id"])
