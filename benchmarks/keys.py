"""Does what is predicted of a key agree with keys that are drawn? On plans made by dice (tests/dice_plans.py).

    python benchmarks/keys.py [plans]      2 to 4 s each

The constants of core/damage/edges.py were fitted to seeds 350 to 699, those of core/damage/moving_hand.py to seeds up
to 549; from 700 on plans are held out. Told are, over all
plans: rank correlation and mean distance of predicted and keyed quality, each part's fit, and how the weighted open
findings go with the quality.
"""

from __future__ import annotations

import json
import sys
from multiprocessing import Pool
from pathlib import Path
from typing import Any

import numpy as np
from scipy.stats import spearmanr

from ausblick.core.advice.findings import find
from ausblick.core.advice.whole_plan import weight_of
from ausblick.core.damage.scale import PARTS
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.simulation import simulate
from ausblick.core.matte.window_shot import NoScreen
from ausblick.core.plan import plan_from
from ausblick.formats.recording import through

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
from tests.dice_plans import built

FITTED = 700


def one(seed: int) -> dict[str, Any] | None:
    source = built(seed)
    plan, store = plan_from(source), BasisStore()
    evaluation, findings = find(plan, store, with_remedies=False)
    if evaluation.damage is None:
        return None
    damage = evaluation.damage.kinder
    try:
        key = simulate(plan, store, through)
    except NoScreen:
        return None
    open_ = [(f.rule.id, f.judgement.severity) for f in findings if f.judgement.severity != "fine"]
    return {
        "seed": seed, "keyed": key.quality, "predicted": damage.quality, "formula": key.kinder.formula,
        "measured": {part.name: part.value for part in key.parts},
        "told": {part.name: part.value for part in damage.parts},
        "clipped": damage.clipped, "noise": damage.noise, "cloth": source["subject"]["wardrobe"][0]["name"],
        "framing": source["subject"]["framing"], "open": open_,
        "weight": weight_of({f.rule.id: f.judgement for f in findings}),
        "edges": {"edge": dict(damage.edge_causes), "hair": dict(damage.hair_causes),
                  "motion": dict(damage.motion_causes)},
    }  # fmt: skip


def main() -> int:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 60
    with Pool(2) as pool:
        found = [row for row in pool.imap(one, range(FITTED, FITTED + count)) if row is not None]
    if len(sys.argv) > 2:
        with open(sys.argv[2], "w") as out:
            json.dump(found, out)
    tell(found)
    return 0


def tell(found: list[dict[str, Any]]) -> None:
    keyed, predicted = (np.array([row[name] for row in found]) for name in ("keyed", "predicted"))
    print(f"{len(found)} plans; quality {np.percentile(keyed, [0, 10, 25, 50, 75, 90, 100]).round(0)}")
    off = np.abs(keyed - predicted)
    rank, far = spearmanr(keyed, predicted).statistic, np.percentile(off, 90)
    print(f"predicted quality: rank {rank:.2f}, {off.mean():.1f} points off in the mean, p90 {far:.0f}")
    for part in PARTS:
        pairs = [(r["measured"][part.name], r["told"].get(part.name)) for r in found]
        known = np.array([(a, b) for a, b in pairs if a is not None and b is not None])
        if len(known) < 5:
            continue
        a, b = known.T
        fit = 1.0 - ((a - b) ** 2).sum() / max(((a - a.mean()) ** 2).sum(), 1e-12)
        print(f"  {part.name:16} n {len(a):3}  R2 {fit:6.2f}  rank {spearmanr(a, b).statistic:5.2f}  "
              f"measured {np.median(a):7.3f}  told {np.median(b):7.3f}")  # fmt: skip
    weighted = np.array([row["weight"] for row in found])
    print(f"weighted open findings against quality: rank {spearmanr(weighted, keyed).statistic:.3f}")
    good = [row for row in found if row["keyed"] >= 80.0]
    stops = [[rule for rule, severity in row["open"] if severity == "stop"] for row in good]
    print(f"quality 80 and more: {len(good)}; open findings {sorted(len(row['open']) for row in good)}, "
          f"stops {[s for s in stops if s]}")  # fmt: skip
    stopped = [row for row in found if any(severity == "stop" for _, severity in row["open"])]
    print(f"stopped: {len(stopped)}; their quality {sorted(round(row['keyed']) for row in stopped)}")


if __name__ == "__main__":
    sys.exit(main())
