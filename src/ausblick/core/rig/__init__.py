"""Hanging and lighting as work: clamps, ballast, steaming, people, and the cautions that go with them."""
