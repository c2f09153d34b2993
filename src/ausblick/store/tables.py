"""The tables: set-ups, their revisions, and imported frames."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, Index, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    pass


NUMBERS_ONCE = {"sqlite_autoincrement": True}
"""A removed row's number never comes again: what is remembered by number stays true."""


class SetupRow(Base):
    """`revision` counts every change of state and is what two writers are told apart by."""

    __tablename__ = "setups"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int]
    current_id: Mapped[int | None]
    created: Mapped[datetime]
    changed: Mapped[datetime]
    deleted: Mapped[datetime | None]


class RevisionRow(Base):
    """One state of a plan. `origin`: save, restore or conflict; `parent_id` is where undo goes."""

    __tablename__ = "revisions"
    __table_args__ = (Index("ix_revisions_setup", "setup_id", "parent_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    setup_id: Mapped[int] = mapped_column(ForeignKey("setups.id", ondelete="CASCADE"))
    parent_id: Mapped[int | None] = mapped_column(ForeignKey("revisions.id"))
    plan: Mapped[str] = mapped_column(Text)
    origin: Mapped[str] = mapped_column(String(16))
    name: Mapped[str | None] = mapped_column(String(200))
    created: Mapped[datetime]


class FrameRow(Base):
    """An imported frame; the picture lies in the frames folder under `stored`. `deleted`: when it went into the
    trash, from which it can come back."""

    __tablename__ = "frames"
    __table_args__ = NUMBERS_ONCE

    id: Mapped[int] = mapped_column(primary_key=True)
    setup_id: Mapped[int] = mapped_column(ForeignKey("setups.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(200))
    stored: Mapped[str] = mapped_column(String(200))
    reading: Mapped[str] = mapped_column(Text)
    created: Mapped[datetime]
    deleted: Mapped[datetime | None]


class KitRow(Base):
    """The kit room: a single row."""

    __tablename__ = "kits"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int]
    document: Mapped[str] = mapped_column(Text)


class KitStateRow(Base):
    """A state of the kit to which undo leads, or redo where it is `ahead`; the newest has the highest number."""

    __tablename__ = "kit_states"

    id: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str] = mapped_column(Text)
    ahead: Mapped[bool] = mapped_column(default=False)


class TestKeyRow(Base):
    """A simulated test key: of which plan, what it said; its pictures lie in the keys folder under `stored`."""

    __tablename__ = "test_keys"
    __table_args__ = NUMBERS_ONCE

    id: Mapped[int] = mapped_column(primary_key=True)
    setup_id: Mapped[int] = mapped_column(ForeignKey("setups.id", ondelete="CASCADE"), index=True)
    plan: Mapped[str] = mapped_column(Text)
    report: Mapped[str] = mapped_column(Text)
    stored: Mapped[str] = mapped_column(String(200))
    created: Mapped[datetime]


class TickRow(Base):
    """An item of the lists round a take that was ticked by hand."""

    __tablename__ = "ticks"

    setup_id: Mapped[int] = mapped_column(ForeignKey("setups.id", ondelete="CASCADE"), primary_key=True)
    item: Mapped[str] = mapped_column(String(60), primary_key=True)


class ProductionRow(Base):
    """A production: a single document, every change a revision of it; set-ups are named by their numbers in it."""

    __tablename__ = "productions"
    __table_args__ = NUMBERS_ONCE

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int]
    document: Mapped[str] = mapped_column(Text)
    changed: Mapped[datetime]
    deleted: Mapped[datetime | None]


class ProductionStateRow(Base):
    """A state of a production to which undo leads, or redo where it is `ahead`; the newest has the highest number."""

    __tablename__ = "production_states"

    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("productions.id", ondelete="CASCADE"), index=True)
    document: Mapped[str] = mapped_column(Text)
    ahead: Mapped[bool] = mapped_column(default=False)


class TakeRow(Base):
    """A take as it was logged. `key` is unique, so that what a phone sends twice is logged once."""

    __tablename__ = "takes"
    __table_args__ = NUMBERS_ONCE

    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("productions.id", ondelete="CASCADE"), index=True)
    key: Mapped[str] = mapped_column(String(80), unique=True)
    document: Mapped[str] = mapped_column(Text)
    created: Mapped[datetime]
    deleted: Mapped[datetime | None]
