"""The inner loops of cutting plans: placing rectangles by edge-to-edge cuts, and improving a plan board by board.

All sizes here are whole micrometres, parts and boards both grown by one kerf, so that nothing else needs to know of
the kerf. Compiled once and kept on disk; the same numbers and seed give the same plan on every machine.

A free rectangle knows the stage of the cuts that made it and their direction: another cut in that direction belongs to
the same stage, one across it to the next. Cuts UP run across the board (x = constant), cuts ALONG run along it.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from tall_plank.shop.compiled import compiled

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]

RECT_RULES, SPLIT_RULES, ORDERS = 4, 9, 6
"""Numbers of ways to choose a free rectangle, to split it, and to order the pieces."""

STRIPS, HEADS = 7, 8
"""Ways to split that cut strips first, along the board or across it, and then each strip into pieces."""

UP, ALONG, ANY = 0, 1, -1
"""Directions of cuts, and no direction yet."""

FIRST_FIT, BEST_FIT, LAST_ONLY = 0, 1, 2
"""Which boards a piece may go on: the first that takes it, the one it fits best on, the one opened last."""

FREE_COLUMNS = 7  # x, y, width, height, board, stage, direction


@compiled
def draw(state: NDArray[np.uint64]) -> float:
    """A number from 0 to 1 and the next state (xorshift64*, Vigna 2016)."""
    x = state[0]
    x ^= x >> np.uint64(12)
    x ^= x << np.uint64(25)
    x ^= x >> np.uint64(27)
    state[0] = x
    return float((x * np.uint64(2685821657736338717)) >> np.uint64(11)) / 9007199254740992.0


@compiled
def below(state: NDArray[np.uint64], n: int) -> int:
    """A whole number from 0 to n - 1."""
    return min(n - 1, int(draw(state) * n))


@compiled
def order_by(
    items: Ints, m: int, wide: Ints, high: Ints, key: int, noise: float, state: NDArray[np.uint64], keys: Floats
) -> None:
    """Sort the first m items in place, largest first by a measure of their size times a random factor. `noise`: a
    share."""
    for k in range(m):
        w, h = float(wide[items[k]]), float(high[items[k]])
        if key == 0:
            value = w * h
        elif key == 1:
            value = w + h
        elif key == 2:
            value = max(w, h) + 1e-6 * min(w, h)
        elif key == 3:
            value = min(w, h) + 1e-6 * max(w, h)
        elif key == 4:
            value = w + 1e-6 * h
        else:
            value = h + 1e-6 * w
        keys[k] = value * (1.0 + noise * (draw(state) - 0.5)) if noise > 0.0 else value
    # Insertion for the few of some boards, merging for a whole list.
    if m <= 48:
        for k in range(1, m):
            item, value = items[k], keys[k]
            j = k - 1
            while j >= 0 and keys[j] < value:
                items[j + 1], keys[j + 1] = items[j], keys[j]
                j -= 1
            items[j + 1], keys[j + 1] = item, value
    else:
        rank = np.argsort(-keys[:m], kind="mergesort")
        items[:m] = items[:m][rank]


@compiled
def stage_after(stage: int, last: int, way: int) -> int:
    """The stage of a cut in a direction on a rectangle made by cuts of a stage in a direction."""
    return stage if last == way else stage + 1


@compiled
def fits(dw: int, dh: int, stage: int, last: int, turns: int, first_up: bool) -> bool:
    """Whether a piece can be cut out of a rectangle that is dw wider and dh higher, within the turns allowed."""
    if turns == 0:
        return True
    at, way = stage, last
    for step in range(2):
        up = first_up if step == 0 else not first_up
        over = dw if up else dh
        if over > 0:
            direction = UP if up else ALONG
            at = stage_after(at, way, direction)
            way = direction
            if at > turns:
                return False
    return True


@compiled
def add_free(free: Ints, n: int, x: int, y: int, w: int, h: int, board: int, stage: int, way: int) -> int:
    """One more free rectangle where it has any size; the number there are then."""
    if w > 0 and h > 0:
        free[n, 0], free[n, 1], free[n, 2], free[n, 3] = x, y, w, h
        free[n, 4], free[n, 5], free[n, 6] = board, stage, way
        return n + 1
    return n


@compiled
def pack(
    items: Ints,
    m: int,
    wide: Ints,
    high: Ints,
    turnable: Ints,
    kinds: Ints,
    left: Ints,
    price: Floats,
    rect_rule: int,
    split_rule: int,
    boards_rule: int,
    kind_rule: int,
    turns: int,
    first: int,
    state: NDArray[np.uint64],
    out: Ints,
    board_kind: Ints,
    free: Ints,
    least: Ints,
) -> tuple[int, int, int]:
    """Place items in their order, each whole before the next.

    Parameters
    ----------
    kinds : (t, 2) array, usable length and width of each kind of board
    left : (t,) array, boards of each kind that are left; taken from here
    kind_rule : how a new board is chosen: 0 cheapest for its size, 1 smallest that takes the piece, 2 at random
    out : (n, 4) array: board, x, y, turned of each item; board -1 where none takes it
    board_kind : kind of each board opened
    free : work space
    least : (m + 1,) least smaller side of the items from each place of the order on: what is smaller takes none of them

    Returns
    -------
    boards opened, items not placed, free rectangles left
    """
    nf, nb, lost = 0, 0, 0
    for k in range(m):
        i = items[k]
        best, best_turn, best_score = -1, 0, np.inf
        for f in range(nf):
            if boards_rule == LAST_ONLY and free[f, 4] != nb - 1:
                continue
            fw, fh = free[f, 2], free[f, 3]
            for turn in range(2):
                if turn == 1 and turnable[i] == 0:
                    break
                w = high[i] if turn == 1 else wide[i]
                h = wide[i] if turn == 1 else high[i]
                if w > fw or h > fh:
                    continue
                dw, dh = fw - w, fh - h
                if turns > 0 and not (
                    fits(dw, dh, free[f, 5], free[f, 6], turns, True)
                    or fits(dw, dh, free[f, 5], free[f, 6], turns, False)
                ):
                    continue
                if rect_rule == 0:
                    score = float(fw) * float(fh) - float(w) * float(h)
                elif rect_rule == 1:
                    score = float(min(dw, dh)) + 1e-7 * float(max(dw, dh))
                elif rect_rule == 2:
                    score = float(max(dw, dh)) + 1e-7 * float(min(dw, dh))
                else:
                    # An exact side is worth more than anything, then the place nearest to the corner.
                    score = (0.0 if dw == 0 or dh == 0 else 1e12) + float(free[f, 0]) + float(free[f, 1])
                if boards_rule == FIRST_FIT:
                    score += 1e18 * free[f, 4]
                if score < best_score:
                    best, best_turn, best_score = f, turn, score
        if best < 0:
            kind = -1
            kind_score = np.inf
            for t in range(kinds.shape[0]):
                if left[t] == 0:
                    continue
                plain = wide[i] <= kinds[t, 0] and high[i] <= kinds[t, 1]
                turned = turnable[i] == 1 and high[i] <= kinds[t, 0] and wide[i] <= kinds[t, 1]
                if not plain and not turned:
                    continue
                size = float(kinds[t, 0]) * float(kinds[t, 1])
                if kind_rule == 0:
                    score = price[t] / size
                elif kind_rule == 1:
                    score = size
                else:
                    score = draw(state)
                if score < kind_score:
                    kind, kind_score = t, score
            if kind < 0:
                out[i, 0] = -1
                lost += 1
                continue
            left[kind] -= 1
            board_kind[nb] = kind
            start_stage = 0 if first == ANY else 1
            nf = add_free(free, nf, 0, 0, kinds[kind, 0], kinds[kind, 1], nb, start_stage, first)
            nb += 1
            best = nf - 1
            fw, fh = free[best, 2], free[best, 3]
            best_score = np.inf
            best_turn = -1
            for turn in range(2):
                if turn == 1 and turnable[i] == 0:
                    break
                w = high[i] if turn == 1 else wide[i]
                h = wide[i] if turn == 1 else high[i]
                if w <= fw and h <= fh:
                    if turns > 0 and not (
                        fits(fw - w, fh - h, free[best, 5], free[best, 6], turns, True)
                        or fits(fw - w, fh - h, free[best, 5], free[best, 6], turns, False)
                    ):
                        continue
                    score = float(min(fw - w, fh - h))
                    if score < best_score:
                        best_turn, best_score = turn, score
            if best_turn < 0:
                # The turns allowed do not reach for this piece on this board.
                nf -= 1
                nb -= 1
                left[kind] += 1
                out[i, 0] = -1
                lost += 1
                continue
        x, y, fw, fh = free[best, 0], free[best, 1], free[best, 2], free[best, 3]
        board, stage, last = free[best, 4], free[best, 5], free[best, 6]
        w = high[i] if best_turn == 1 else wide[i]
        h = wide[i] if best_turn == 1 else high[i]
        dw, dh = fw - w, fh - h
        out[i, 0], out[i, 1], out[i, 2], out[i, 3] = board, x, y, best_turn
        # The last free rectangle takes the place of the used one.
        nf -= 1
        for c in range(FREE_COLUMNS):
            free[best, c] = free[nf, c]
        if split_rule == 0:
            along = fw < fh
        elif split_rule == 1:
            along = fw >= fh
        elif split_rule == 2:
            along = dw < dh
        elif split_rule == 3:
            along = dw >= dh
        elif split_rule == 4:
            along = float(w) * float(dh) < float(h) * float(dw)
        elif split_rule == 5:
            along = float(w) * float(dh) >= float(h) * float(dw)
        elif split_rule == STRIPS:
            along = last != UP
        elif split_rule == HEADS:
            along = last == ALONG
        else:
            along = draw(state) < 0.5
        if turns > 0:
            if along and not fits(dw, dh, stage, last, turns, False):
                along = False
            elif not along and not fits(dw, dh, stage, last, turns, True):
                along = True
        small = least[k + 1]
        if along:
            # First a cut along the board above the piece, then one across beside it.
            at, way = stage, last
            if dh > 0:
                at, way = stage_after(at, way, ALONG), ALONG
                if min(fw, dh) >= small:
                    nf = add_free(free, nf, x, y + h, fw, dh, board, at, ALONG)
            if dw > 0:
                at = stage_after(at, way, UP)
                if min(dw, h) >= small:
                    nf = add_free(free, nf, x + w, y, dw, h, board, at, UP)
        else:
            at, way = stage, last
            if dw > 0:
                at, way = stage_after(at, way, UP), UP
                if min(dw, fh) >= small:
                    nf = add_free(free, nf, x + w, y, dw, fh, board, at, UP)
            if dh > 0:
                at = stage_after(at, way, ALONG)
                if min(w, dh) >= small:
                    nf = add_free(free, nf, x, y + h, w, dh, board, at, ALONG)
    return nb, lost, nf


@compiled
def fill_least(items: Ints, m: int, wide: Ints, high: Ints, least: Ints) -> None:
    """Least smaller side of the items from each place of their order on."""
    least[m] = np.iinfo(np.int64).max
    for k in range(m - 1, -1, -1):
        i = items[k]
        least[k] = min(least[k + 1], min(wide[i], high[i]))


@compiled
def improve(
    rounds: int,
    wide: Ints,
    high: Ints,
    turnable: Ints,
    kinds: Ints,
    left: Ints,
    price: Floats,
    turns: int,
    first: int,
    state: NDArray[np.uint64],
    placed: Ints,
    board_kind: Ints,
    count: int,
    worth: Floats,
    slack: float,
    goal: float,
) -> int:
    """Take a few boards apart, again and again, and lay their pieces out anew; keep what costs less, or the same with
    the pieces nearer together.

    Parameters
    ----------
    placed : (n, 4) array as in `pack`; changed in place
    board_kind : kind of each board; changed in place
    left : boards of each kind that are not in use; changed in place
    count : boards in use
    worth : by kind of board, what the square of the area in use on one counts: a full board is worth more than two
        that are half full, a full offcut more than either
    slack : share by which a layout may be worse and still be taken, to leave dead ends
    goal : stop once the boards cost no more than this

    Returns
    -------
    boards in use
    """
    n = wide.shape[0]
    items = np.empty(n, np.int64)
    keys = np.empty(n, np.float64)
    least = np.empty(n + 1, np.int64)
    free = np.empty((4 * n + 64, FREE_COLUMNS), np.int64)
    out = np.empty((n, 4), np.int64)
    new_kind = np.empty(n + 8, np.int64)
    now_left = np.empty(left.shape[0], np.int64)
    fill = np.zeros(n + 8, np.float64)
    total = 0.0
    for i in range(n):
        if placed[i, 0] >= 0:
            fill[placed[i, 0]] += float(wide[i]) * float(high[i])
    for b in range(count):
        total += price[board_kind[b]]
    chosen = np.empty(6, np.int64)
    fresh = np.zeros(8, np.float64)
    for _ in range(rounds):
        if count < 1 or total <= goal:
            break
        many = min(count, 2 + below(state, 3))
        # The emptiest of three is taken apart, and others beside it.
        victim = below(state, count)
        for _ in range(2):
            other = below(state, count)
            if fill[other] < fill[victim]:
                victim = other
        chosen[0] = victim
        got = 1
        while got < many:
            other = below(state, count)
            known = False
            for c in range(got):
                known = known or chosen[c] == other
            if not known:
                chosen[got] = other
                got += 1
        m = 0
        old_cost, old_sum = 0.0, 0.0
        for t in range(left.shape[0]):
            now_left[t] = left[t]
        for c in range(got):
            b = chosen[c]
            old_cost += price[board_kind[b]]
            old_sum += fill[b] * fill[b] * worth[board_kind[b]]
            now_left[board_kind[b]] += 1
        for i in range(n):
            for c in range(got):
                if placed[i, 0] == chosen[c]:
                    items[m] = i
                    m += 1
                    break
        spread = below(state, 4)
        noise = 0.05 if spread == 0 else 0.15 if spread == 1 else 0.4 if spread == 2 else 1.0
        order_by(items, m, wide, high, below(state, ORDERS), noise, state, keys)
        fill_least(items, m, wide, high, least)
        nb, lost, _ = pack(
            items,
            m,
            wide,
            high,
            turnable,
            kinds,
            now_left,
            price,
            below(state, RECT_RULES),
            below(state, SPLIT_RULES),
            below(state, 3),
            below(state, 3),
            turns,
            first,
            state,
            out,
            new_kind,
            free,
            least,
        )
        if lost > 0 or nb > 6:
            continue
        cost = 0.0
        for b in range(nb):
            cost += price[new_kind[b]]
            fresh[b] = 0.0
        if cost > old_cost + 1e-9:
            continue
        for k in range(m):
            i = items[k]
            fresh[out[i, 0]] += float(wide[i]) * float(high[i])
        new_sum = 0.0
        for b in range(nb):
            new_sum += fresh[b] * fresh[b] * worth[new_kind[b]]
        if cost > old_cost - 1e-9 and new_sum < old_sum * (1.0 - slack * draw(state)):
            continue
        # Taken: new boards go where the old ones were, what is over moves up from the end.
        for t in range(left.shape[0]):
            left[t] = now_left[t]
        total += cost - old_cost
        while got < nb:
            chosen[got] = count
            count += 1
            got += 1
        for b in range(nb):
            fill[chosen[b]] = fresh[b]
            board_kind[chosen[b]] = new_kind[b]
        for k in range(m):
            i = items[k]
            placed[i, 0] = chosen[out[i, 0]]
            placed[i, 1], placed[i, 2], placed[i, 3] = out[i, 1], out[i, 2], out[i, 3]
        while got > nb:
            # Boards left without pieces: the last one moves into the gap of the highest number first.
            high_at = nb
            for c in range(nb, got):
                if chosen[c] > chosen[high_at]:
                    high_at = c
            gap = chosen[high_at]
            chosen[high_at] = chosen[got - 1]
            got -= 1
            count -= 1
            if gap != count:
                fill[gap] = fill[count]
                board_kind[gap] = board_kind[count]
                for i in range(n):
                    if placed[i, 0] == count:
                        placed[i, 0] = gap
    return count
