"""What the tests of the front end take for the demo's answers is what the demo answers."""

import json

from tests import answers


def test_recorded_answers_have_the_shape_of_what_is_answered_now(demo):
    kept, now = json.loads(answers.TARGET.read_text()), answers.recorded(demo)
    assert kept["answers"].keys() == now["answers"].keys(), "run `make answers`"
    odd = [
        text
        for path, answer in now["answers"].items()
        for text in answers.differing(answers.shape(kept["answers"][path]), answers.shape(answer), path)
    ]
    odd += answers.differing(answers.shape(kept["state"]), answers.shape(now["state"]), "state")
    assert odd == [], "run `make answers`"
