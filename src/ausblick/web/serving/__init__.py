"""From a socket to the application: connections that may not dawdle, bodies with a limit, readers who may leave."""

from .server import Wishes, beside, run

__all__ = ["Wishes", "beside", "run"]
