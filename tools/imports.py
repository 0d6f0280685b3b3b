"""The import graph of the packages, drawn into docs/architecture.md.

`python -m tools.imports` writes it; with `--check` it fails when it is old. An arrow says
"imports"; arrows that a longer way says already are left out.
"""

from __future__ import annotations

import re
import sys
from collections import defaultdict
from pathlib import Path

import grimp

PAGE = Path(__file__).resolve().parents[1] / "docs" / "architecture.md"
MARK = re.compile(r"<!-- imports: ([\w.]+) -->\n```mermaid\n.*?```\n", re.S)
Graph = dict[str, set[str]]


def packages(root: str, graph: grimp.ImportGraph) -> Graph:
    """What each part right under a package imports of the others; a module is a part of its own."""
    start = f"{root}."
    found: Graph = defaultdict(set)
    for module in graph.modules:
        if not module.startswith(start):
            continue
        mine = module.removeprefix(start).split(".")[0]
        found[mine] |= set()
        for other in graph.find_modules_directly_imported_by(module):
            if other.startswith(start):
                theirs = other.removeprefix(start).split(".")[0]
                if theirs != mine:
                    found[mine].add(theirs)
    return dict(found)


def reached(graph: Graph, start: str) -> set[str]:
    """Everything that is reached by two steps or more."""
    seen: set[str] = set()
    waiting = [two for one in graph[start] for two in graph.get(one, ())]
    while waiting:
        at = waiting.pop()
        if at not in seen:
            seen.add(at)
            waiting += graph.get(at, ())
    return seen


def circles(graph: Graph) -> list[str]:
    """Parts that reach themselves."""
    return sorted(part for part in graph if part in reached(graph, part))


def drawn(root: str, graph: Graph) -> str:
    """The graph as text that is drawn, without what a longer way says already."""
    lines = [f"<!-- imports: {root} -->", "```mermaid", "graph TD"]
    for part in sorted(graph):
        direct = sorted(graph[part] - reached(graph, part))
        lines += [f"  {part} --> {other}" for other in direct]
    return "\n".join([*lines, "```"]) + "\n"


def main() -> int:
    """Write or check the drawings."""
    whole = grimp.build_graph("tumbrel", cache_dir=None)
    page = PAGE.read_text("utf-8")
    told = MARK.sub(lambda m: drawn(m[1], packages(m[1], whole)), page)
    if told != page and "--check" in sys.argv:
        print("docs/architecture.md is older than the imports; run python3 run.py describe")
        return 1
    PAGE.write_text(told, "utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
