"""Every way in, each with something hostile to put through it; and the folders in which that happens."""

from __future__ import annotations

import contextlib
import io
import json
import random
import zipfile
from collections.abc import Callable
from typing import Any

from sandbox import Sandbox, refusal, sensible
from spoiled import NASTY, large_png, respoiled, spoiled_bytes, spoiled_text, spoiled_tree, spoiled_values


class Gates:
    """Every way in. Each takes chance, puts something in, and lets errors through."""

    def __init__(self) -> None:
        self.box = Sandbox()
        from conftest import with_run
        from tall_plank.edits.clipboard import copy_cells
        from tall_plank.edits.library import save_run
        from tall_plank.edits.things.common import Spot
        from tall_plank.edits.things.table import add_thing
        from tall_plank.files.plankfile import job_bytes
        from tall_plank.files.standards import standard_toml
        from tall_plank.job import Level
        from tall_plank.job.start import DATA as JOB_DATA
        from tall_plank.job.start import new_job
        from tall_plank.shop.machine.model import SHIPPED
        from tall_plank.stock.library import DATA as STOCK_DATA

        job = with_run(new_job(), "A", Level.BASE, "door 600, drawers 900, sink 900")
        job = with_run(job, "B", Level.BASE, "door 450, pair share")
        job = add_thing(job, "window", Spot("r1", "C")).job
        job = add_thing(job, "door", Spot("r1", "D")).job
        self.job = job
        self.document = json.loads(job_bytes(job))
        self.parts = {k: v for k, v in self.document["job"].items() if k not in ("stock", "templates", "standards")}
        cells = tuple(c.id for c in job.cells()[:2])
        self.clip, self.saved = copy_cells(job, cells), save_run(job, job.runs()[0][1].id, "a run")
        self.standard = standard_toml(job.active_standard())
        self.machine = SHIPPED.read_text(encoding="utf-8")
        self.kinds = [p.read_text(encoding="utf-8") for p in sorted((JOB_DATA / "templates").glob("*.toml"))]
        self.stock = {str(p.relative_to(STOCK_DATA)): p.read_text(encoding="utf-8") for p in STOCK_DATA.rglob("*.toml")}
        self.lists = {
            "parts": "part,length_mm,width_mm,qty,material,grain,outline\nA,720,560,2,M,length,\n"
            "B,500,400,3,M,none,0 0; 500 0; 0 400\n",
            "boards": "board,material,length_mm,width_mm,price,qty\nX,M,2800,2070,60,\nY,M,2440,1220,30,4\n",
            "pieces": "piece,length_mm,qty,profile\nA,900,4,P\nB,1200,3,P\n",
            "bars": "profile,length_mm,price\nP,3000,10\nP,5000,15\n",
            "stock": "code,kind,name,price,length_mm,width_mm,picture\nHX-1,handle,A handle,4.50,160,12,\n"
            "BP18,board,Ply,55,,,\n",
        }
        self.program = (
            "%\nG21 G90 G17\nT1 M6\nS18000 M3\nG0 X50 Y50 Z30\nG1 Z10 F2000\nG1 X300 Y60 F4000\n"
            "G2 X350 Y110 I0 J50\nG0 Z30\nM5\nM2\n%\n"
        )
        self.outlines = {
            "board": [600, 400, 19],
            "parts": [{"part": "A", "outline": [[0, 0], [500, 0], [500, 300]], "openings": []}],
        }

    # --- texts

    def lengths(self, r: random.Random) -> None:
        from tall_plank.measure import DisplayUnit, parse_length
        from tall_plank.measure.filenames import file_name
        from tall_plank.measure.lengths import evaluate_rule
        from tall_plank.measure.numbers import read_number

        words = (
            "600",
            '1 1/2"',
            "2' 6",
            "60cm",
            "(",
            ")",
            "+",
            "-",
            "*",
            "/",
            "min(",
            "max(",
            ";",
            ",",
            "worktop",
            "w",
            "1.5",
            "1,5",
            "'",
            "½",
            "𝟗",
        )
        text = "".join(r.choice(words) for _ in range(r.randint(1, 14)))
        text = spoiled_text(r, text) if r.random() < 0.4 else text
        values = {"worktop": 40.0, "w": 600.0}
        length = None
        with refusal():
            length = parse_length(text, r.choice(list(DisplayUnit)), values)
        if length is not None:
            sensible(abs(length.mm) <= 1e6, f"{text!r} is {length.mm}")
            again = parse_length(length.text, r.choice(list(DisplayUnit)), values)
            sensible(
                abs(again.mm - length.mm) < 0.001, f"{text!r} kept as {length.text!r} is {again.mm}, not {length.mm}"
            )
        with refusal():
            evaluate_rule(text, r.choice(("length", "number")), values, {"n": 3.0})
        with contextlib.suppress(ValueError):
            read_number(text, r.choice(("", ".", ",")))
        name = file_name(text)
        sensible(
            name and "/" not in name and not name.startswith(".") and len(name.encode()) <= 200, f"{name!r} is no file"
        )

    def edit_texts(self, r: random.Random) -> None:
        from tall_plank.edits import bays, outline, runs, runtext, values

        text = spoiled_text(
            r,
            r.choice(
                (
                    "door 600, drawers 900",
                    "3 x door share, filler 50",
                    "2400 corner 90, 3000, 2400, rest",
                    "300, share",
                    "rest, 2 share",
                )
            ),
        )
        job, cell = self.job, self.job.cells()[0].id
        edit: Callable[[], Any] = r.choice((
            lambda: runtext.type_run(job, job.runs()[0][1].id, text), lambda: outline.type_outline(job, "r1", text),
            lambda: bays.split_bay(job, cell, (), text, "rows", "shelf"), lambda: runs.set_width(job, (cell,), text),
            lambda: values.set_value(job, "worktop", text), lambda: values.set_value(job, text, "20"),
        ))  # fmt: skip
        with refusal():
            self.taken(edit().job, r)

    # --- job files

    def taken(self, job: Any, r: random.Random, *, deep: bool = True) -> None:
        """What was taken makes sense, computes, and can be saved."""
        from tall_plank.files.plankfile import job_bytes, job_from_bytes
        from tall_plank.measure.limits import unsound
        from tall_plank.workings import Workings

        sensible(unsound(job) is None, str(unsound(job)))
        if not deep and r.random() > 0.3:
            return
        w = Workings(job)
        tally = w.tally
        sensible(tally.price.net.is_finite(), "its price is no number")
        for item in w.made.parts():
            size = (item.part.length, item.part.width, item.part.thickness)
            sensible(all(0 < mm < 60_000 for mm in size), f"a part of {size}")
        data = job_bytes(job)
        sensible(job_bytes(job_from_bytes(data, "again")) == data, "it is another job when it is read again")

    def job_document(self, r: random.Random) -> None:
        from tall_plank.files.plankfile import job_from_bytes

        tree: Any = self.document
        if r.random() < 0.8:
            # Most chances go to what people decide, not to the long lists of stock.
            part = spoiled_tree(r, self.parts, r.choice((1, 1, 2, 4)))
            inner = {**self.document["job"], **part} if isinstance(part, dict) else part
            tree = {**self.document, "job": inner}
        else:
            tree = spoiled_tree(r, tree, r.choice((1, 2)))
        data = json.dumps(tree).encode()
        job = None
        with refusal():
            job = job_from_bytes(data, "x.plank")
        if job is not None:
            self.taken(job, r, deep=False)

    def job_file(self, r: random.Random) -> None:
        from tall_plank.files.plankfile import MIMETYPE, read_plank

        buffer = io.BytesIO()
        body = json.dumps(self.document).encode()
        with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
            entries: list[tuple[str, bytes]] = [("mimetype", MIMETYPE.encode()), ("job.json", body)]
            pick = r.random()
            if pick < 0.15:
                entries.append(
                    (r.choice(("../../evil", "/abs", "assets/../x", "C:\\x", "assets/a.jpg", "job.json ")), b"x")
                )
            elif pick < 0.25:
                entries[1] = ("job.json", b" " * r.choice((10_000, 40_000_000)) + body)
            elif pick < 0.35:
                entries[1] = ("job.json", b"[" * r.choice((100, 100_000)))
            elif pick < 0.45:
                entries += [(f"assets/{i}.jpg", b"0" * 10) for i in range(r.choice((10, 2500)))]
            for name, data in entries:
                archive.writestr(name, data)
        data = buffer.getvalue()
        path = self.box.put("x.plank", spoiled_bytes(r, data) if r.random() < 0.6 else data)
        with refusal():
            self.taken(read_plank(path), r, deep=False)

    # --- files of the shop

    def toml_files(self, r: random.Random) -> None:
        from tall_plank.edits.stock import add_kinds
        from tall_plank.files.standards import read_standard
        from tall_plank.job.template import load_template
        from tall_plank.shop.machine.model import load_machine

        pick = r.choice(("machine", "standard", "kind"))
        text = {"machine": self.machine, "standard": self.standard, "kind": r.choice(self.kinds)}[pick]
        text = r.choice((spoiled_values, spoiled_values, spoiled_text))(r, text)
        if r.random() < 0.02:
            text = r.choice(
                ("a = " + "[" * 5000, "a = " + "9" * 6000, "a = 1e99999999", "[" + ".".join("a" * 3000) + "]")
            )
        path = self.box.put("x.toml", text)
        with refusal():
            if pick == "machine":
                found = load_machine(path)
                sensible(all(0 < t.diameter <= 300 and t.feed > 0 for t in found.tools), "a tool makes no sense")
            elif pick == "standard":
                read_standard(path)
            else:
                kind = load_template(path)
                job = add_kinds(self.job, (kind,)).job
                from tall_plank.edits.runs import insert_unit

                wall = r.choice("CD")
                self.taken(insert_unit(job, "r1", wall, kind.code).job, r, deep=False)

    def stock_folder(self, r: random.Random) -> None:
        from tall_plank.edits.stock import replace_stock
        from tall_plank.stock import load_stock

        name = r.choice(list(self.stock))
        folder = self.box.root / "in" / "stock"
        for other, text in self.stock.items():
            self.box.put(f"stock/{other}", spoiled_values(r, text) if other == name else text)
        with refusal():
            self.taken(replace_stock(self.job, load_stock(folder)).job, r, deep=False)

    def lists_of(self, r: random.Random) -> None:
        from tall_plank.edits.stocklist import take_list
        from tall_plank.files import cutcsv
        from tall_plank.files.stocklist import read_stock_list
        from tall_plank.shop.bars import cut_bars
        from tall_plank.shop.nesting import NestRules, Request
        from tall_plank.shop.nesting.nest import nest

        name = r.choice(list(self.lists))
        path = self.box.put(f"{name}.csv", r.choice((spoiled_values, spoiled_text))(r, self.lists[name]))
        with refusal():
            if name == "stock":
                self.taken(take_list(self.job, read_stock_list(path)).job, r, deep=False)
            elif name in ("parts", "boards"):
                other = self.box.put("other.csv", self.lists["boards" if name == "parts" else "parts"])
                parts, _ = cutcsv.read_parts(path if name == "parts" else other)
                boards, _ = cutcsv.read_boards(other if name == "parts" else path)
                plan = nest(Request(parts, boards, NestRules(effort=1, seconds=1.0, mode=r.choice(("saw", "router")))))
                sensible(plan.used <= 1.0001, f"a yield of {plan.used}")
            else:
                other = self.box.put("other.csv", self.lists["bars" if name == "pieces" else "pieces"])
                pieces, _ = cutcsv.read_pieces(path if name == "pieces" else other)
                bars, _ = cutcsv.read_bar_stock(other if name == "pieces" else path)
                cut_bars(pieces, bars)

    def workbooks(self, r: random.Random) -> None:
        import openpyxl

        from tall_plank.edits.stocklist import take_list
        from tall_plank.files.stocklist import read_stock_list

        book = openpyxl.Workbook()
        for line in self.lists["stock"].splitlines():
            cells: list[Any] = line.split(",")
            if r.random() < 0.4:
                bad = r.choice(NASTY)
                cells[r.randrange(len(cells))] = (
                    bad if isinstance(bad, int | float) and abs(bad) < 1e300 else str(bad).replace("\x00", "")[:3000]
                )
            with contextlib.suppress(Exception):
                book.active.append(cells)  # type: ignore[union-attr]
        buffer = io.BytesIO()
        try:
            book.save(buffer)
        except Exception:  # what cannot be written cannot be read either
            return
        data = buffer.getvalue()
        if r.random() < 0.6:
            data = spoiled_bytes(r, data)
        elif r.random() < 0.3:
            data = respoiled(r, data)
        path = self.box.put("x.xlsx", data)
        with refusal():
            take_list(self.job, read_stock_list(path))

    def drawings(self, r: random.Random) -> None:
        from tall_plank.edits.outline import draw_outline
        from tall_plank.files.dxf_read import read_outlines

        path = self.box.put("x.dxf", self._dxf(r))
        with refusal():
            found = read_outlines(path)
            self.taken(draw_outline(self.job, "r1", found[0].points).job, r, deep=False)

    def _dxf(self, r: random.Random) -> str:
        if not hasattr(self, "dxf"):
            import ezdxf

            document = ezdxf.new()
            space = document.modelspace()
            space.add_lwpolyline([(0, 0), (4000, 0), (4000, 3000), (0, 3000)], close=True)
            space.add_line((0, 0), (100, 0))
            stream = io.StringIO()
            document.write(stream)
            self.dxf = stream.getvalue()
        lines = self.dxf.splitlines()
        start = lines.index("ENTITIES")
        for _ in range(r.randint(1, 3)):
            n = r.randrange(start, len(lines)) if r.random() < 0.8 else r.randrange(len(lines))
            lines[n] = str(r.choice(NASTY))[:200]
        text = "\n".join(lines)
        return text[: r.randrange(len(text))] if r.random() < 0.2 else text

    def images(self, r: random.Random) -> None:
        from PIL import Image

        from tall_plank.files.images import read_image

        buffer = io.BytesIO()
        kind = r.choice(("PNG", "JPEG", "GIF", "BMP", "TIFF", "WEBP"))
        Image.new(r.choice(("RGB", "L")), (r.randint(1, 60), r.randint(1, 60)), 90).save(buffer, kind)
        data = spoiled_bytes(r, buffer.getvalue()) if r.random() < 0.9 else buffer.getvalue()
        if r.random() < 0.1:
            data = large_png(r.choice((30_000, 7_000, 100_000)))
        path = self.box.put(f"x.{kind.lower()}", data)
        with refusal():
            image = read_image(path)
            sensible(2 <= image.wide <= 2400 and 2 <= image.high <= 2400, f"an image of {image.wide} x {image.high}")

    def documents(self, r: random.Random) -> None:
        from tall_plank.edits.clipboard import paste
        from tall_plank.edits.library import place_saved
        from tall_plank.files.machinefiles import read_outlines

        pick = r.random()
        if pick < 0.3:
            text = json.dumps(spoiled_tree(r, self.outlines, r.randint(1, 3)))
            if r.random() < 0.1:
                text = r.choice(
                    ("[" * 200_000, "9" * 100_000, '{"parts": [{"outline": [[NaN, 0]]}]}', '{"parts": 1e999}')
                )
            with refusal():
                read_outlines(self.box.put("x.json", text))
            return
        text = self.clip if pick < 0.65 else self.saved
        text = (
            json.dumps(spoiled_tree(r, json.loads(text), r.randint(1, 3)))
            if r.random() < 0.7
            else spoiled_text(r, text)
        )
        with refusal():
            made = paste(self.job, text, "r1", "C") if pick < 0.65 else place_saved(self.job, text, "r1", "C")
            self.taken(made.job, r, deep=False)

    def own_folders(self, r: random.Random) -> None:
        """Preferences, autosaves, records, machines and the library as a broken disk leaves them."""
        from tall_plank.files import library, machines
        from tall_plank.files.plankfile import job_bytes
        from tall_plank.files.rack import Rack
        from tall_plank.files.userdata import Autosave, Preferences, UserFolders

        root = self.box.root / "in" / "user"
        folders = UserFolders(root / "config", root / "state", root / "data")
        prefs = json.dumps(
            spoiled_tree(r, {"recent": ["/a", "/b"], "look": "dark", "display": "mm", "n": {"a": [1, 2]}}, 2)
        )
        self.box.put("user/config/preferences.json", spoiled_text(r, prefs) if r.random() < 0.5 else prefs)
        self.box.put("user/config/machines/a.toml", spoiled_values(r, self.machine))
        self.box.put("user/config/library/a.json", spoiled_text(r, self.saved))
        head = json.dumps(spoiled_tree(r, {"file": "x", "kept": "2026-11-01 10:00"})).encode()
        if r.random() < 0.2:
            self.box.put("user/state/autosave/a.json", head + b"\n" + spoiled_bytes(r, job_bytes(self.job)))
        preferences = Preferences(folders)
        preferences.recent()
        preferences.get("look", "light")
        library.kept(folders)
        machines.shop_machines(folders)
        Autosave.left_behind(folders)
        if r.random() < 0.3:
            rack = Rack(folders.rack)
            rack.add("BP18", 800.0, 400.0)
            data = folders.rack.read_bytes()
            folders.rack.write_bytes(spoiled_bytes(r, data))
            with refusal():
                rack.pieces()
            with refusal():
                rack.history()
            with refusal():
                rack.add("BP18", 700.0, 300.0)
            with refusal():
                rack.undo()

    def programs(self, r: random.Random) -> None:
        from tall_plank.shop.machine.model import shipped_machine
        from tall_plank.shop.simulator import run_program

        text = r.choice((spoiled_text, spoiled_values))(r, self.program)
        if r.random() < 0.02:
            text = self.program.replace("G0 Z30\n", "G2 X300 Y60 I1000000 J0\n" * 3)
        if r.random() < 0.005:
            text = self.program.replace("G0 Z30\n", "".join(f"G1 X{i % 300} Y{i % 200}\n" for i in range(20_000)))
        run_program(text, shipped_machine(), (600.0, 400.0, 19.0))

    # --- verbs

    def verbs(self, r: random.Random) -> None:
        from click.testing import CliRunner

        from tall_plank.cli import main
        from tall_plank.files.plankfile import write_plank

        box = self.box
        job = box.root / "in" / "job.plank"
        if not job.exists():
            job.parent.mkdir(exist_ok=True)
            box.watching = False
            write_plank(self.job, job)
            box.watching = True
        files = {
            name: box.put(f"{name}.csv", text if r.random() < 0.7 else spoiled_values(r, text))
            for name, text in self.lists.items()
        }
        program = box.put("p.ngc", self.program)
        outlines = box.put("o.json", json.dumps(self.outlines if r.random() < 0.6 else spoiled_tree(r, self.outlines)))
        machine = box.put("m.toml", self.machine if r.random() < 0.6 else spoiled_values(r, self.machine))
        out = r.choice(("a.json", "a.csv", "a.xlsx", "a.pdf", "a", "sub/no/a.csv", "/proc/x.csv", "", "é" * 200))
        number = lambda: str(r.choice((3, 3.2, 10, 0, -1, "nan", "inf", 1e9, "x", "", "1e-9", 0.001)))  # noqa: E731
        source: Any = (
            str(job) if r.random() < 0.8 else r.choice((str(program), str(box.root), "/dev/null", "nowhere.plank", ""))
        )
        boards = ("600,400,19", "nan,1,1", "1e-9,1,1", "1e9,1,1", "600,400", "inf,inf,inf")
        seeds = ("1", "-5", "99999999999999999999")
        given = r.choice((
            ["measure", spoiled_text(r, "2' 7 1/2\" + 18"), "--to", r.choice(("in", "mm", "x"))],
            [
                "nest", "--parts", str(files["parts"]), "--boards", str(files["boards"]), "--out", out,
                "--kerf", number(), "--trim", number(), "--seconds", r.choice(("1", "0.5", "nan", "-1")),
                "--effort", r.choice("1239"),
                "--seed", r.choice(seeds), "--mode", r.choice(("saw", "router")),
            ],
            [
                "bars", "--pieces", str(files["pieces"]), "--stock", str(files["bars"]), "--out", out, "--kerf",
                number(), "--trim", number(),
            ],
            ["bars", source, "--out", out], ["nest", source, "--out", out, "--seconds", "1", "--effort", "1"],
            [
                "check-program", str(program), "--parts", str(outlines), "--machine", str(machine), "--board",
                r.choice(boards),
            ],
            ["tally", source], ["tally", source, str(job), "--json"], ["snags", source],
            ["parts", source, "--out", out], ["hardware", source, "--out", out],
        ))  # fmt: skip
        if r.random() < 0.1:
            given.insert(r.randrange(len(given) + 1), r.choice(("--nonsense", "-", "--", "\udcff", "--json", "-1")))
        result = CliRunner().invoke(main, given)
        if result.exception is not None and not isinstance(result.exception, SystemExit):
            raise result.exception
        sensible(result.exit_code != 3, f"{given}: {result.output[-300:]}")


SHARES = {
    "lengths": 20, "edit_texts": 8, "job_document": 14, "job_file": 4, "toml_files": 14, "stock_folder": 2,
    "lists_of": 12, "workbooks": 3, "drawings": 4, "images": 6, "documents": 6, "own_folders": 3, "programs": 3,
    "verbs": 3,
}  # fmt: skip
"""How many of a hundred inputs go through each gate."""
