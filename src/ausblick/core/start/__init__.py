"""The first two minutes: what somebody says of a room and its things, in the words of the job, becomes a lit set."""
