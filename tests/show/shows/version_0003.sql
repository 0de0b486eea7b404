BEGIN TRANSACTION;
CREATE TABLE alembic_version (
	version_num VARCHAR(32) NOT NULL, 
	CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num)
);
INSERT INTO "alembic_version" VALUES('0003');
CREATE TABLE control (
	id INTEGER NOT NULL, 
	page_id INTEGER NOT NULL, 
	place INTEGER NOT NULL, 
	name VARCHAR(80) NOT NULL, 
	mode VARCHAR(12) NOT NULL, 
	effect_id INTEGER NOT NULL, 
	heads JSON NOT NULL, 
	release_s FLOAT NOT NULL, job VARCHAR(12) DEFAULT 'depth' NOT NULL, families JSON, 
	PRIMARY KEY (id), 
	FOREIGN KEY(effect_id) REFERENCES effect (id), 
	FOREIGN KEY(page_id) REFERENCES page (id)
);
INSERT INTO "control" VALUES(1,1,1,'Tide up','fader',4,'["101", "102", "103"]',0.5,'both','null');
INSERT INTO "control" VALUES(2,1,1,'Blink','flash',2,'["103", "102", "101"]',0.4,'depth','["intensity"]');
CREATE TABLE draft_effect (
	id INTEGER NOT NULL, 
	effect_id INTEGER NOT NULL, 
	heads JSON NOT NULL, 
	PRIMARY KEY (id), 
	FOREIGN KEY(effect_id) REFERENCES effect (id)
);
INSERT INTO "draft_effect" VALUES(1,3,'["101", "102"]');
CREATE TABLE draft_value (
	attribute VARCHAR(40) NOT NULL, 
	heads JSON NOT NULL, 
	PRIMARY KEY (attribute)
);
INSERT INTO "draft_value" VALUES('intensity','{"101": 40.0}');
CREATE TABLE edit (
	id INTEGER NOT NULL, 
	browser VARCHAR(64) NOT NULL, 
	label VARCHAR(200) NOT NULL, 
	at DATETIME NOT NULL, 
	undone BOOLEAN NOT NULL, 
	changes JSON NOT NULL, 
	PRIMARY KEY (id)
);
INSERT INTO "edit" VALUES(1,'a','Make','2026-11-25 16:28:54.025431',0,'[{"table": "show", "key": 1, "before": null, "after": {"id": 1, "name": "Old", "settings": {"opening": [{"do": "level", "control": "control:1", "value": 0.5}]}}}, {"table": "tempo", "key": "Fast", "before": null, "after": {"name": "Fast", "bpm": 140, "position": 1}}, {"table": "tempo", "key": "Slow", "before": null, "after": {"name": "Slow", "bpm": 60, "position": 0}}, {"table": "mode", "key": "Gallarda 300, 24 channels", "before": null, "after": {"name": "Gallarda 300, 24 channels", "document": {"name": "Gallarda 300, 24 channels", "maker": "Pavana", "model": "Gallarda 300", "kind": "spot", "emitters": "cmy", "channels": [{"source": "pan", "slots": [0, 1], "low": -270.0, "high": 270.0, "inverted": false, "cell": 0}, {"source": "tilt", "slots": [2, 3], "low": -130.0, "high": 130.0, "inverted": false, "cell": 0}, {"source": "intensity", "slots": [4, 5], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "strobe", "slots": [6], "low": 0.0, "high": 25.0, "inverted": false, "cell": 0}, {"source": "cyan", "slots": [7], "low": 0.0, "high": 1.0, "inverted": false, "cell": 0}, {"source": "magenta", "slots": [8], "low": 0.0, "high": 1.0, "inverted": false, "cell": 0}, {"source": "yellow", "slots": [9], "low": 0.0, "high": 1.0, "inverted": false, "cell": 0}, {"source": "gobo", "slots": [10], "low": 0.0, "high": 7.0, "inverted": false, "cell": 0}, {"source": "prism", "slots": [12], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "zoom", "slots": [13, 14], "low": 6.0, "high": 48.0, "inverted": false, "cell": 0}, {"source": "focus", "slots": [15, 16], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "iris", "slots": [17], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "frost", "slots": [18], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}], "footprint": 24, "limits": {"tilt": [-130.0, 130.0, 25.0], "zoom": [6.0, 48.0, 12.0]}, "wheel": [], "light": [1.0, 1.0, 1.0], "cells": [], "beam_deg": 20.0}}}, {"table": "fixture", "key": 101, "before": null, "after": {"number": 101, "name": "Rear spot", "mode": "Gallarda 300, 24 channels", "x": -7.2, "y": 6.0, "z": 7.2, "turn_x": 0.0, "turn_y": 180.0, "turn_z": 0.0, "universe": 1, "address": 1, "reversed_cells": false}}, {"table": "fixture", "key": 102, "before": null, "after": {"number": 102, "name": "Rear spot", "mode": "Gallarda 300, 24 channels", "x": -5.6, "y": 6.0, "z": 7.2, "turn_x": 0.0, "turn_y": 180.0, "turn_z": 0.0, "universe": 1, "address": 25, "reversed_cells": false}}, {"table": "fixture", "key": 103, "before": null, "after": {"number": 103, "name": "Rear spot", "mode": "Gallarda 300, 24 channels", "x": -4.0, "y": 6.0, "z": 7.2, "turn_x": 0.0, "turn_y": 180.0, "turn_z": 0.0, "universe": 1, "address": 49, "reversed_cells": false}}, {"table": "head_group", "key": 1, "before": null, "after": {"id": 1, "name": "All", "heads": ["101", "102", "103"], "position": 0}}, {"table": "palette", "key": 1, "before": null, "after": {"id": 1, "name": "Coral", "position": 0, "document": {"family": "colour", "colour": "#ff4f3a", "values": {}, "own": {}}}}, {"table": "effect", "key": 1, "before": null, "after": {"id": 1, "name": "Tide", "kept": true, "favourite": false, "document": {"format": "zarabanda.effect/1", "name": "Tide", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}, {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": {"palette": "Coral"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": "base", "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": {"palette": "Gone"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}], "long_way": false}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}}}, {"table": "page", "key": 1, "before": null, "after": {"id": 1, "name": "First", "position": 0}}, {"table": "control", "key": 1, "before": null, "after": {"id": 1, "page_id": 1, "place": 1, "name": "Tide up", "mode": "fader", "effect_id": 1, "heads": ["101", "102", "103"], "job": "both", "families": null, "release_s": 0.5}}]');
INSERT INTO "edit" VALUES(2,'a','Button','2026-11-25 16:28:54.117744',0,'[{"table": "effect", "key": 2, "before": null, "after": {"id": 2, "name": "Blink", "kept": true, "favourite": false, "document": {"format": "zarabanda.effect/1", "name": "Blink", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "time", "seconds_per_cycle": 2.0}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}}}, {"table": "control", "key": 2, "before": null, "after": {"id": 2, "page_id": 1, "place": 1, "name": "Blink", "mode": "flash", "effect_id": 2, "heads": ["103", "102", "101"], "job": "depth", "families": ["intensity"], "release_s": 0.4}}]');
INSERT INTO "edit" VALUES(3,'a','Draft','2026-11-25 16:28:54.356910',0,'[{"table": "effect", "key": 3, "before": null, "after": {"id": 3, "name": "Not kept", "kept": false, "favourite": false, "document": {"format": "zarabanda.effect/1", "name": "Not kept", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}}}, {"table": "draft_effect", "key": 1, "before": null, "after": {"id": 1, "effect_id": 3, "heads": ["101", "102"]}}, {"table": "draft_value", "key": "intensity", "before": null, "after": {"attribute": "intensity", "heads": {"101": 40.0}}}]');
INSERT INTO "edit" VALUES(4,'a','Rename','2026-11-25 16:28:54.384766',0,'[{"table": "palette", "key": 1, "before": {"id": 1, "name": "Coral", "position": 0, "document": {"family": "colour", "colour": "#ff4f3a", "values": {}, "own": {}}}, "after": {"id": 1, "name": "Reef", "position": 0, "document": {"family": "colour", "colour": "#ff4f3a", "values": {}, "own": {}}}}, {"table": "effect", "key": 1, "before": {"id": 1, "name": "Tide", "kept": true, "favourite": false, "document": {"format": "zarabanda.effect/1", "name": "Tide", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}, {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": {"palette": "Coral"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": "base", "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": {"palette": "Gone"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}], "long_way": false}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}}, "after": {"id": 1, "name": "Tide", "kept": true, "favourite": false, "document": {"format": "zarabanda.effect/1", "name": "Tide", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}, {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": {"palette": "Reef"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": "base", "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": {"palette": "Gone"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}], "long_way": false}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}}}]');
INSERT INTO "edit" VALUES(5,'a','Faster','2026-11-25 16:28:54.557750',0,'[{"table": "tempo", "key": "Slow", "before": {"name": "Slow", "bpm": 60.0, "position": 0}, "after": {"name": "Slow", "bpm": 62.0, "position": 0}}]');
INSERT INTO "edit" VALUES(6,'b','Own','2026-11-25 16:28:55.304824',0,'[{"table": "effect", "key": 4, "before": null, "after": {"id": 4, "name": "Tide 2", "kept": true, "favourite": false, "document": {"format": "zarabanda.effect/1", "name": "Tide 2", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}, {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": {"palette": "Reef"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": "base", "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": {"palette": "Gone"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}], "long_way": false}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}}}, {"table": "control", "key": 1, "before": {"id": 1, "page_id": 1, "place": 1, "name": "Tide up", "mode": "fader", "effect_id": 1, "heads": ["101", "102", "103"], "job": "both", "families": null, "release_s": 0.5}, "after": {"id": 1, "page_id": 1, "place": 1, "name": "Tide up", "mode": "fader", "effect_id": 4, "heads": ["101", "102", "103"], "job": "both", "families": null, "release_s": 0.5}}]');
CREATE TABLE effect (
	id INTEGER NOT NULL, 
	name VARCHAR(80) NOT NULL, 
	kept BOOLEAN NOT NULL, 
	favourite BOOLEAN NOT NULL, 
	document JSON NOT NULL, 
	PRIMARY KEY (id)
);
INSERT INTO "effect" VALUES(1,'Tide',1,0,'{"format": "zarabanda.effect/1", "name": "Tide", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}, {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": {"palette": "Reef"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": "base", "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": {"palette": "Gone"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}], "long_way": false}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}');
INSERT INTO "effect" VALUES(2,'Blink',1,0,'{"format": "zarabanda.effect/1", "name": "Blink", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "time", "seconds_per_cycle": 2.0}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}');
INSERT INTO "effect" VALUES(3,'Not kept',0,0,'{"format": "zarabanda.effect/1", "name": "Not kept", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}');
INSERT INTO "effect" VALUES(4,'Tide 2',1,0,'{"format": "zarabanda.effect/1", "name": "Tide 2", "tags": [], "seed": 0, "colour_space": "hsv-short", "run": "forward", "drift": [100.0, 100.0], "ends_after": 0.0, "speed": {"kind": "tempo", "tempo": "Slow", "cycles_per_beat": 0.5, "sync": "beat"}, "lanes": {"order": ["as-picked"], "parts": 1, "mirror": false, "pack": 1, "repeat": 0, "travel": "forward"}, "spread": {"kind": "ripple", "degrees": 360.0, "fit": "closed"}, "layers": [{"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 50.0}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}, {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": {"palette": "Reef"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": "base", "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}, {"value": {"palette": "Gone"}, "travel": 1.0, "hold": 0.0, "ease": "linear", "relative": false}], "long_way": false}, "ratio": 1.0, "start": 0.0, "mirror_pan": true, "muted": false}], "own": {}}');
CREATE TABLE fixture (
	number INTEGER NOT NULL, 
	name VARCHAR(120) NOT NULL, 
	mode VARCHAR(120) NOT NULL, 
	x FLOAT NOT NULL, 
	y FLOAT NOT NULL, 
	z FLOAT NOT NULL, 
	turn_x FLOAT NOT NULL, 
	turn_y FLOAT NOT NULL, 
	turn_z FLOAT NOT NULL, 
	universe INTEGER NOT NULL, 
	address INTEGER NOT NULL, 
	reversed_cells BOOLEAN NOT NULL, 
	PRIMARY KEY (number), 
	FOREIGN KEY(mode) REFERENCES mode (name)
);
INSERT INTO "fixture" VALUES(101,'Rear spot','Gallarda 300, 24 channels',-7.2,6.0,7.2,0.0,180.0,0.0,1,1,0);
INSERT INTO "fixture" VALUES(102,'Rear spot','Gallarda 300, 24 channels',-5.6,6.0,7.2,0.0,180.0,0.0,1,25,0);
INSERT INTO "fixture" VALUES(103,'Rear spot','Gallarda 300, 24 channels',-4.0,6.0,7.2,0.0,180.0,0.0,1,49,0);
CREATE TABLE head_group (
	id INTEGER NOT NULL, 
	name VARCHAR(80) NOT NULL, 
	heads JSON NOT NULL, 
	position INTEGER NOT NULL, 
	PRIMARY KEY (id), 
	UNIQUE (name)
);
INSERT INTO "head_group" VALUES(1,'All','["101", "102", "103"]',0);
CREATE TABLE mode (
	name VARCHAR(120) NOT NULL, 
	document JSON NOT NULL, 
	PRIMARY KEY (name)
);
INSERT INTO "mode" VALUES('Gallarda 300, 24 channels','{"name": "Gallarda 300, 24 channels", "maker": "Pavana", "model": "Gallarda 300", "kind": "spot", "emitters": "cmy", "channels": [{"source": "pan", "slots": [0, 1], "low": -270.0, "high": 270.0, "inverted": false, "cell": 0}, {"source": "tilt", "slots": [2, 3], "low": -130.0, "high": 130.0, "inverted": false, "cell": 0}, {"source": "intensity", "slots": [4, 5], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "strobe", "slots": [6], "low": 0.0, "high": 25.0, "inverted": false, "cell": 0}, {"source": "cyan", "slots": [7], "low": 0.0, "high": 1.0, "inverted": false, "cell": 0}, {"source": "magenta", "slots": [8], "low": 0.0, "high": 1.0, "inverted": false, "cell": 0}, {"source": "yellow", "slots": [9], "low": 0.0, "high": 1.0, "inverted": false, "cell": 0}, {"source": "gobo", "slots": [10], "low": 0.0, "high": 7.0, "inverted": false, "cell": 0}, {"source": "prism", "slots": [12], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "zoom", "slots": [13, 14], "low": 6.0, "high": 48.0, "inverted": false, "cell": 0}, {"source": "focus", "slots": [15, 16], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "iris", "slots": [17], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}, {"source": "frost", "slots": [18], "low": 0.0, "high": 100.0, "inverted": false, "cell": 0}], "footprint": 24, "limits": {"tilt": [-130.0, 130.0, 25.0], "zoom": [6.0, 48.0, 12.0]}, "wheel": [], "light": [1.0, 1.0, 1.0], "cells": [], "beam_deg": 20.0}');
CREATE TABLE page (
	id INTEGER NOT NULL, 
	name VARCHAR(80) NOT NULL, 
	position INTEGER NOT NULL, 
	PRIMARY KEY (id)
);
INSERT INTO "page" VALUES(1,'First',0);
CREATE TABLE palette (
	id INTEGER NOT NULL, 
	name VARCHAR(80) NOT NULL, 
	position INTEGER NOT NULL, 
	document JSON NOT NULL, 
	PRIMARY KEY (id), 
	UNIQUE (name)
);
INSERT INTO "palette" VALUES(1,'Reef',0,'{"family": "colour", "colour": "#ff4f3a", "values": {}, "own": {}}');
CREATE TABLE show (
	id INTEGER NOT NULL, 
	name VARCHAR(120) NOT NULL, 
	settings JSON NOT NULL, 
	PRIMARY KEY (id)
);
INSERT INTO "show" VALUES(1,'Old','{"opening": [{"do": "level", "control": "control:1", "value": 0.5}]}');
CREATE TABLE tempo (
	name VARCHAR(80) NOT NULL, 
	bpm FLOAT NOT NULL, 
	position INTEGER NOT NULL, 
	PRIMARY KEY (name)
);
INSERT INTO "tempo" VALUES('Fast',140.0,1);
INSERT INTO "tempo" VALUES('Slow',62.0,0);
CREATE INDEX ix_edit_browser ON edit (browser);
COMMIT;
