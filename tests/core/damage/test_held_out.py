"""Plans that nobody tuned to: what is predicted of their keys, what is drawn, and what their findings weigh."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.stats import spearmanr

from ausblick.core.advice.findings import find
from ausblick.core.advice.whole_plan import weight_of
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.simulation import simulate
from ausblick.core.matte.window_shot import NoScreen
from ausblick.core.plan import plan_from
from ausblick.formats.recording import through
from tests.dice_plans import built

HELD_OUT = range(150, 190)


@pytest.mark.torture
def test_the_verdict_goes_with_the_key_on_forty_plans_that_were_held_out() -> None:
    drawn, predicted, weights, good = [], [], [], []
    for seed in HELD_OUT:
        plan, store = plan_from(built(seed)), BasisStore()
        evaluation, findings = find(plan, store, with_remedies=False)
        if evaluation.damage is None:
            continue
        try:
            quality = simulate(plan, store, through).quality
        except NoScreen:
            continue
        drawn.append(quality)
        predicted.append(evaluation.damage.kinder.quality)
        weights.append(weight_of({f.rule.id: f.judgement for f in findings}))
        if quality >= 80.0:
            good.append([f for f in findings if f.judgement.severity != "fine"])
    assert spearmanr(predicted, drawn).statistic > 0.9
    assert np.abs(np.array(predicted) - drawn).mean() < 8.0
    assert spearmanr(weights, drawn).statistic < -0.83
    assert len(good) >= 4
    assert max(len(findings) for findings in good) <= 8
    on_the_key = [f for findings in good for f in findings if f.rule.id.startswith("key.")]
    assert all(f.judgement.severity != "stop" for f in on_the_key)
