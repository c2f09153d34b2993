import numpy as np
import pytest

from ausblick.core.geometry.quantiles import quantiles


def test_quantiles_are_linear_between_what_is_there() -> None:
    values = np.array([[4.0, 0.0], [1.0, 2.0], [3.0, 9.0]])
    assert quantiles(values, [0.0, 0.1, 0.5, 0.95, 1.0]) == pytest.approx([0.0, 0.5, 2.5, 7.75, 9.0])
    assert quantiles(np.full(1, 7.0), [0.95]) == pytest.approx([7.0])
