"""The processes of a running demo: which they are, and what they have written down."""

import re
import subprocess

from tests.waiting import until
from zarabanda.engine.journal import Journal
from zarabanda.web import processes


def children(demo):
    """Process numbers by part, found by what they run."""
    listing = subprocess.run(["ps", "-eo", "pid,ppid,args"], capture_output=True, text=True, check=True).stdout
    found = {}
    for line in listing.splitlines()[1:]:
        pid, parent, arguments = line.split(None, 2)
        if int(parent) == demo.running.process.pid:
            part = re.search(r"zarabanda\.(engine|simulators)|gunicorn", arguments)
            if part:  # else: ended, and not yet waited for
                found[part.group(1) or "web"] = int(pid)
    at_work = {one.name: one.pid for one in processes.read(demo.running.data)}  # beside it a spare one waits
    return found | ({"engine": at_work["engine"]} if "engine" in found else {})


def written_down(demo, accept):
    """Wait until the journal has what is meant."""
    journal = Journal(demo.running.data / "journal")
    until(lambda: (entry := journal.read_live()) and accept(entry))
