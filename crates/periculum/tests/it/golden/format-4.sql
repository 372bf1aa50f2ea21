PRAGMA user_version = 4;
BEGIN TRANSACTION;
CREATE TABLE armed (
    rig TEXT PRIMARY KEY,
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    starting INTEGER NOT NULL
, checksum BLOB) WITHOUT ROWID;
CREATE TABLE attached (
    climb INTEGER NOT NULL REFERENCES climbs,
    sensor TEXT NOT NULL,
    label TEXT NOT NULL,
    unit TEXT NOT NULL,
    decimals INTEGER NOT NULL,
    source TEXT NOT NULL, checksum BLOB,
    PRIMARY KEY (climb, sensor)
) WITHOUT ROWID;
CREATE TABLE climbs (
    climb INTEGER PRIMARY KEY,
    plan TEXT NOT NULL,
    rig TEXT NOT NULL,
    specimen TEXT NOT NULL,
    use_name TEXT NOT NULL,
    seed INTEGER,
    plan_text TEXT NOT NULL,
    rig_text TEXT NOT NULL,
    wall INTEGER NOT NULL
, checksum BLOB, texts_checksum BLOB);
INSERT INTO "climbs" VALUES(1,'first light','dome','processor A-0417','daily',11,'# First light: how fast does this specimen go at its stock voltage, and with how little voltage there?
format = 1

[plan]
name = "first light"
rig = "dome.rig.toml"
use = "daily"

[proof.quick]
passes = [
    { load = "integer", for = "20s" },
    { load = "dense", for = "90s" },
]

[[stage]]
strategy = "baseline"
repeats = 2
proof = "quick"

[[stage]]
strategy = "ascend"
setting = "core_clock"
step = 50
proof = "quick"

[[stage]]
strategy = "trim"
setting = "core_voltage"
step = 0.005
proof = "quick"
','# The image-stacking workstation of an amateur observatory: a simulated rig.
# docs/files.md explains every key.
format = 1

[rig]
name = "dome"
summary = "image-stacking workstation under the dome of Skarn Hill observatory"

[[part]]
kind = "processor"
model = "Veltra Octo 42"
specimen = "A-0417"
paid = "310 EUR"

[[part]]
kind = "cooler"
model = "Norrvind Twin Tower"

[setting.core_clock]
label = "core clock"
unit = "MHz"
ladder = { from = 3800, step = 25, to = 5600 }
stock = 4200
ceiling = { daily = 5100, bench = 5400 }
largest_jump = 400
tolerance = 5
harder = "up"
takes_effect = "at-once"
adapter = "simulated"

[setting.core_voltage]
label = "core voltage"
unit = "V"
ladder = { from = 0.950, step = 0.005, to = 1.450 }
stock = 1.250
floor = 1.050
ceiling = { daily = 1.320, bench = 1.400 }
largest_jump = 0.100
tolerance = 0.002
harder = "down"
takes_effect = "at-once"
adapter = "simulated"

[derived.peak_rate]
unit = "GFLOP/s"
formula = "core_clock * 16 * 8 / 1000"

[derived.over_stock]
unit = "%"
formula = "(core_clock / 4200 - 1) * 100"
window = { from = -10, to = 25 }

[sensor.hottest_core]
label = "hottest core"
unit = "°C"
decimals = 1
cut_off = 100
adapter = "simulated"
source = "hottest-core"

[sensor.die_voltage]
label = "voltage under load"
unit = "V"
decimals = 3
adapter = "simulated"
source = "die-voltage"

[sensor.reached_clock]
label = "clock reached"
unit = "MHz"
follows = "core_clock"
adapter = "simulated"
source = "reached-clock"

[sensor.package_power]
label = "package power"
unit = "W"
decimals = 1
cut_off = 240
adapter = "simulated"
source = "power"

[sensor.room]
label = "room"
unit = "°C"
decimals = 1
adapter = "simulated"
source = "room"

[sensor.usage]
label = "usage"
unit = "%"
adapter = "simulated"
source = "usage"

[adapter.simulated]
seed = 11
cores = 8
room = 21
clock = "core_clock"
voltage = "core_voltage"
',1795799247979,X'C4AF09602399DB97007A776DC78DAEAB',X'408402D27C1C4E22CB36CA3ADF8A8F8F');
INSERT INTO "climbs" VALUES(2,'first light','dome','processor A-0417','daily',9,'# First light: how fast does this specimen go at its stock voltage, and with how little voltage there?
format = 1

[plan]
name = "first light"
rig = "dome.rig.toml"
use = "daily"

[proof.quick]
passes = [
    { load = "integer", for = "20s" },
    { load = "dense", for = "90s" },
]

[[stage]]
strategy = "baseline"
repeats = 2
proof = "quick"

[[stage]]
strategy = "ascend"
setting = "core_clock"
step = 50
proof = "quick"

[[stage]]
strategy = "trim"
setting = "core_voltage"
step = 0.005
proof = "quick"
','# The image-stacking workstation of an amateur observatory: a simulated rig.
# docs/files.md explains every key.
format = 1

[rig]
name = "dome"
summary = "image-stacking workstation under the dome of Skarn Hill observatory"

[[part]]
kind = "processor"
model = "Veltra Octo 42"
specimen = "A-0417"
paid = "310 EUR"

[[part]]
kind = "cooler"
model = "Norrvind Twin Tower"

[setting.core_clock]
label = "core clock"
unit = "MHz"
ladder = { from = 3800, step = 25, to = 5600 }
stock = 4200
ceiling = { daily = 5100, bench = 5400 }
largest_jump = 400
tolerance = 5
harder = "up"
takes_effect = "at-once"
adapter = "simulated"

[setting.core_voltage]
label = "core voltage"
unit = "V"
ladder = { from = 0.950, step = 0.005, to = 1.450 }
stock = 1.250
floor = 1.050
ceiling = { daily = 1.320, bench = 1.400 }
largest_jump = 0.100
tolerance = 0.002
harder = "down"
takes_effect = "at-once"
adapter = "simulated"

[derived.peak_rate]
unit = "GFLOP/s"
formula = "core_clock * 16 * 8 / 1000"

[derived.over_stock]
unit = "%"
formula = "(core_clock / 4200 - 1) * 100"
window = { from = -10, to = 25 }

[sensor.hottest_core]
label = "hottest core"
unit = "°C"
decimals = 1
cut_off = 100
adapter = "simulated"
source = "hottest-core"

[sensor.die_voltage]
label = "voltage under load"
unit = "V"
decimals = 3
adapter = "simulated"
source = "die-voltage"

[sensor.reached_clock]
label = "clock reached"
unit = "MHz"
follows = "core_clock"
adapter = "simulated"
source = "reached-clock"

[sensor.package_power]
label = "package power"
unit = "W"
decimals = 1
cut_off = 240
adapter = "simulated"
source = "power"

[sensor.room]
label = "room"
unit = "°C"
decimals = 1
adapter = "simulated"
source = "room"

[sensor.usage]
label = "usage"
unit = "%"
adapter = "simulated"
source = "usage"

[adapter.simulated]
seed = 11
cores = 8
room = 21
clock = "core_clock"
voltage = "core_voltage"
',1795799248950,X'2CE824ACD858D5D334923D28348ABD7E',X'D697F48C7A291CF4764F7B5E2245D2E5');
INSERT INTO "climbs" VALUES(3,'by hand','by-hand','','daily',NULL,'# A short climb on real iron: you change the multiplier, Periculum proves it.
format = 1

[plan]
name = "by hand"
rig = "by-hand.rig.toml"
use = "daily"

[proof.glance]
passes = [{ load = "dense", for = "2s" }]

[[stage]]
strategy = "baseline"
proof = "glance"

[[stage]]
strategy = "ascend"
setting = "multiplier"
step = 0.5
proof = "glance"
','# Any Linux machine whose multiplier is changed by hand, in firmware or with a tool.
# Change the figures to those of your machine before you climb; docs/files.md explains every key.
format = 1

[rig]
name = "by-hand"
summary = "this machine, with its multiplier changed by hand"

[[part]]
kind = "processor"
model = "the one in this machine"

[setting.multiplier]
label = "multiplier"
unit = "×"
ladder = { from = 30, step = 0.5, to = 60 }
stock = 36
ceiling = { daily = 42 }
harder = "up"
takes_effect = "by-hand"

[setting.base_clock]
label = "base clock"
unit = "MHz"
values = [99.8, 100, 100.5, 101]
stock = 100
ceiling = { daily = 100.5 }
harder = "up"
takes_effect = "by-hand"

[derived.core_clock]
unit = "MHz"
formula = "base_clock * multiplier"
window = { from = 2900, to = 4250 }

[sensor.usage]
unit = "%"
adapter = "linux"
source = "usage"

[sensor.reported_clock]
label = "clock reported"
unit = "MHz"
adapter = "linux"
source = "reported-clock"
',1795799251951,X'D6B9D12E4831EC4BA0A24FB8A30241F7',X'055DDE7DE1C78B1343EC3C7F54550406');
CREATE TABLE dropped (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    why TEXT NOT NULL,
    body TEXT
);
CREATE TABLE ends (
    climb INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    how TEXT NOT NULL,
    trials INTEGER NOT NULL,
    falls INTEGER NOT NULL,
    tested INTEGER NOT NULL
);
INSERT INTO "ends" VALUES(1,1781991651750,'every stage is done',24,2,2414250);
CREATE TABLE entered (
    entered INTEGER PRIMARY KEY,
    what TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    specimen TEXT NOT NULL,
    source TEXT NOT NULL,
    wall INTEGER NOT NULL
, checksum BLOB);
CREATE TABLE heads (
    climb INTEGER PRIMARY KEY,
    lines INTEGER NOT NULL,
    digest BLOB NOT NULL
);
INSERT INTO "heads" VALUES(1,74,X'E59A29123E5C33A39EFFC4033420982387500467904F30180E2DF8EC05E1A3B4');
INSERT INTO "heads" VALUES(2,40,X'97ED03A68A769B20411B9472C948F0EEBE631C0301DED069EE906C6836CC164D');
INSERT INTO "heads" VALUES(3,4,X'9DEED5621828B5B42F157B183B27728B8643750BEC9719AA12D19F57507F2991');
CREATE TABLE incidents (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    entry INTEGER NOT NULL,
    at INTEGER NOT NULL,
    trial INTEGER,
    pass INTEGER,
    kind TEXT NOT NULL,
    place TEXT,
    into_pass INTEGER,
    evidence TEXT NOT NULL,
    PRIMARY KEY (climb, line, entry)
) WITHOUT ROWID;
INSERT INTO "incidents" VALUES(1,43,1,1781990831000,15,1,'wrong-result','core 4',51500,'scaled residual 895.1, allowed 16');
INSERT INTO "incidents" VALUES(1,46,1,1781990859750,16,1,'wrong-result','core 6',7250,'scaled residual 5337.8, allowed 16');
INSERT INTO "incidents" VALUES(1,49,1,1781990900250,17,1,'corrected-error','core 1',19000,'3 errors counted and repaired');
INSERT INTO "incidents" VALUES(1,67,1,1781991535750,23,1,'corrected-error','core 1',56500,'4 errors counted and repaired');
CREATE TABLE journal (
    climb INTEGER NOT NULL REFERENCES climbs,
    line INTEGER NOT NULL,
    at INTEGER NOT NULL,
    wall INTEGER NOT NULL,
    boot TEXT NOT NULL,
    body TEXT NOT NULL,
    checksum BLOB NOT NULL,
    PRIMARY KEY (climb, line)
) WITHOUT ROWID;
INSERT INTO "journal" VALUES(1,0,1781989200000,1795799247981,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"started","in_force":{"core_clock":"4200","core_voltage":"1.250"},"ahead":0,"rules":1},"entries":[{"kind":"began","in_force":{"core_clock":"4200","core_voltage":"1.250"}},{"kind":"stage-began","stage":0,"strategy":"baseline"},{"kind":"trial-began","trial":1,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":1,"of":2}},{"kind":"pass-began","trial":1,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'8DE677DCEF1FC01AA8589EBD6E341981633FDE49F924A7FBDE6C4009E7DB9113');
INSERT INTO "journal" VALUES(1,1,1781989220000,1795799247986,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.375801490044521,"unit":"GB/s"},"peaks":{"die_voltage":1.227877451453149,"hottest_core":43.658607471305515,"package_power":87.13286596958552,"reached_clock":4201.142049736524,"room":21.258131453213622,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":1,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.375801490044521,"unit":"GB/s"},"peaks":{"die_voltage":1.227877451453149,"hottest_core":43.658607471305515,"package_power":87.13286596958552,"reached_clock":4201.142049736524,"room":21.258131453213622,"usage":100.0}}},{"kind":"pass-began","trial":1,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'32D74FCDF329AC0E0CD104CFD6382CCBD0E57999B9F216F1F921F9C58562ACB5');
INSERT INTO "journal" VALUES(1,2,1781989310000,1795799248009,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":458.75309013745056,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2205953618327887,"hottest_core":58.02177673354298,"package_power":117.46493709596456,"reached_clock":4202.112426945149,"room":21.21608919040487,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":1,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":458.75309013745056,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2205953618327887,"hottest_core":58.02177673354298,"package_power":117.46493709596456,"reached_clock":4202.112426945149,"room":21.21608919040487,"usage":100.0}}},{"kind":"trial-ended","trial":1,"verdict":"held","incident":null,"tested":110000},{"kind":"trial-began","trial":2,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":2,"of":2}},{"kind":"pass-began","trial":2,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'5A68F4ED674EEE7A48DF12189B5DFFCB26EB70A24FF3C74810D5BAC8588D0D64');
INSERT INTO "journal" VALUES(1,3,1781989330000,1795799248014,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.377203664344428,"unit":"GB/s"},"peaks":{"die_voltage":1.2278801403708381,"hottest_core":55.194685344266425,"package_power":88.99336997318713,"reached_clock":4200.991854339953,"room":21.239086932426805,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":2,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.377203664344428,"unit":"GB/s"},"peaks":{"die_voltage":1.2278801403708381,"hottest_core":55.194685344266425,"package_power":88.99336997318713,"reached_clock":4200.991854339953,"room":21.239086932426805,"usage":100.0}}},{"kind":"pass-began","trial":2,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'156E60B67B2F18BE7663117B6B2C552755C63B91669F34B8912D23B6122040D9');
INSERT INTO "journal" VALUES(1,4,1781989420000,1795799248056,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":456.39347068437996,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2206398802180132,"hottest_core":60.49444715041318,"package_power":118.55992866757161,"reached_clock":4202.096616612411,"room":21.24503137482461,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":2,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":456.39347068437996,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2206398802180132,"hottest_core":60.49444715041318,"package_power":118.55992866757161,"reached_clock":4202.096616612411,"room":21.24503137482461,"usage":100.0}}},{"kind":"trial-ended","trial":2,"verdict":"held","incident":null,"tested":110000},{"kind":"stage-ended","stage":0,"end":{"because":"baseline-held"}},{"kind":"stage-began","stage":1,"strategy":"ascend"},{"kind":"trial-began","trial":3,"stage":1,"rung":{"core_clock":"4250","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4200"}},{"kind":"about-to-apply","trial":3,"change":{"setting":"core_clock","from":"4200","to":"4250"}}]}',X'B33BAA8A8F996BF320B69320AE9196DE15605ECE16834035636D0C604491D8C8');
INSERT INTO "journal" VALUES(1,5,1781989421500,1795799248058,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":3,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'5CBC1A049E7A6631A2D4E5830AE3F547793EC12BB4274859ADB39A0580019E3F');
INSERT INTO "journal" VALUES(1,6,1781989441500,1795799248062,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":172,"score":{"value":6.418961320418626,"unit":"GB/s"},"peaks":{"die_voltage":1.2266002734837598,"hottest_core":54.536788798281634,"package_power":89.88055576963106,"reached_clock":4251.635831139829,"room":21.229639495981562,"usage":100.0}},"reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":3,"pass":0,"report":{"ran":20000,"rounds":172,"score":{"value":6.418961320418626,"unit":"GB/s"},"peaks":{"die_voltage":1.2266002734837598,"hottest_core":54.536788798281634,"package_power":89.88055576963106,"reached_clock":4251.635831139829,"room":21.229639495981562,"usage":100.0}}},{"kind":"pass-began","trial":3,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'BDD084BB1907BC341D8858E19943BF850AF338A92040532C4D8B35B1F2B80627');
INSERT INTO "journal" VALUES(1,7,1781989531500,1795799248086,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55408,"score":{"value":461.88508085503224,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2195883091470772,"hottest_core":61.27771083706118,"package_power":119.16902383335412,"reached_clock":4251.696217890028,"room":21.220942780626764,"usage":100.0}},"reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":3,"pass":1,"report":{"ran":90000,"rounds":55408,"score":{"value":461.88508085503224,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2195883091470772,"hottest_core":61.27771083706118,"package_power":119.16902383335412,"reached_clock":4251.696217890028,"room":21.220942780626764,"usage":100.0}}},{"kind":"trial-ended","trial":3,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.009423191057495561,"low":-0.04732091967212089,"high":0.06616730178711201}},{"kind":"trial-began","trial":4,"stage":1,"rung":{"core_clock":"4300","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4250"}},{"kind":"about-to-apply","trial":4,"change":{"setting":"core_clock","from":"4250","to":"4300"}}]}',X'C0CE342EBCCA726A9247831952B11193CA3E55E7A6B0D269DBB2654892EAB122');
INSERT INTO "journal" VALUES(1,8,1781989533000,1795799248087,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":4,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'BB35C3068C2D65F5E7B4D561B544A2AFC3FD2D0F99649565D61C6379539EEB70');
INSERT INTO "journal" VALUES(1,9,1781989553000,1795799248092,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":173,"score":{"value":6.513341522842593,"unit":"GB/s"},"peaks":{"die_voltage":1.2275515910530042,"hottest_core":55.371180446118075,"package_power":90.56975068855368,"reached_clock":4301.172759128729,"room":21.16235647557408,"usage":100.0}},"reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":4,"pass":0,"report":{"ran":20000,"rounds":173,"score":{"value":6.513341522842593,"unit":"GB/s"},"peaks":{"die_voltage":1.2275515910530042,"hottest_core":55.371180446118075,"package_power":90.56975068855368,"reached_clock":4301.172759128729,"room":21.16235647557408,"usage":100.0}}},{"kind":"pass-began","trial":4,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'A01E734C9430F9BDFFDC8E4C636C744F8FAD46B9377312A4A441A41E575D1A17');
INSERT INTO "journal" VALUES(1,10,1781989643000,1795799248132,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55980,"score":{"value":468.01800694022364,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201529956021238,"hottest_core":62.25039333539358,"package_power":121.2315466197544,"reached_clock":4302.263441696959,"room":21.280629647956065,"usage":100.0}},"reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":4,"pass":1,"report":{"ran":90000,"rounds":55980,"score":{"value":468.01800694022364,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201529956021238,"hottest_core":62.25039333539358,"package_power":121.2315466197544,"reached_clock":4302.263441696959,"room":21.280629647956065,"usage":100.0}}},{"kind":"trial-ended","trial":4,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.022826347115217693,"low":-0.03391776361439876,"high":0.07957045784483414}},{"kind":"trial-began","trial":5,"stage":1,"rung":{"core_clock":"4350","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4300"}},{"kind":"about-to-apply","trial":5,"change":{"setting":"core_clock","from":"4300","to":"4350"}}]}',X'95184B905F3DD1A7392D41FA0B8637222A38A1086A4D105DF171F0E2820F9BF7');
INSERT INTO "journal" VALUES(1,11,1781989644500,1795799248134,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":5,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'839196E84DDF12063A5146F8EEB4553E6A7A0CC4DFB0E3CCDEC692E04E72AF94');
INSERT INTO "journal" VALUES(1,12,1781989664500,1795799248139,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":175,"score":{"value":6.556842861691073,"unit":"GB/s"},"peaks":{"die_voltage":1.2275692685832802,"hottest_core":55.98367511870654,"package_power":91.82206866853933,"reached_clock":4350.983194018921,"room":21.176119310974663,"usage":100.0}},"reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":5,"pass":0,"report":{"ran":20000,"rounds":175,"score":{"value":6.556842861691073,"unit":"GB/s"},"peaks":{"die_voltage":1.2275692685832802,"hottest_core":55.98367511870654,"package_power":91.82206866853933,"reached_clock":4350.983194018921,"room":21.176119310974663,"usage":100.0}}},{"kind":"pass-began","trial":5,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'180F0DA9965AD14056A983420329BE1777607009EEA9373357B0B44BD7A9F34E');
INSERT INTO "journal" VALUES(1,13,1781989754500,1795799248165,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":56551,"score":{"value":469.24255048780174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197286732198582,"hottest_core":62.606166066258275,"package_power":122.623241363437,"reached_clock":4352.007299655889,"room":21.25954585802292,"usage":100.0}},"reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":5,"pass":1,"report":{"ran":90000,"rounds":56551,"score":{"value":469.24255048780174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197286732198582,"hottest_core":62.606166066258275,"package_power":122.623241363437,"reached_clock":4352.007299655889,"room":21.25954585802292,"usage":100.0}}},{"kind":"trial-ended","trial":5,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.025502516375971895,"low":-0.031241594353644556,"high":0.08224662710558835}},{"kind":"trial-began","trial":6,"stage":1,"rung":{"core_clock":"4400","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4350"}},{"kind":"about-to-apply","trial":6,"change":{"setting":"core_clock","from":"4350","to":"4400"}}]}',X'63C865189483706721B26E612C3C37B29BA249BC784074C6C7A36CBB74452EEC');
INSERT INTO "journal" VALUES(1,14,1781989756000,1795799248166,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":6,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9225DE3144FBE0B2465DB18C4ACA7BE42100C55A64BFFED454C93463D885DD9B');
INSERT INTO "journal" VALUES(1,15,1781989776000,1795799248188,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":177,"score":{"value":6.657225439223251,"unit":"GB/s"},"peaks":{"die_voltage":1.2266605352774564,"hottest_core":56.43234138938782,"package_power":92.29603246184543,"reached_clock":4401.449264144766,"room":21.117891556107097,"usage":100.0}},"reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":6,"pass":0,"report":{"ran":20000,"rounds":177,"score":{"value":6.657225439223251,"unit":"GB/s"},"peaks":{"die_voltage":1.2266605352774564,"hottest_core":56.43234138938782,"package_power":92.29603246184543,"reached_clock":4401.449264144766,"room":21.117891556107097,"usage":100.0}}},{"kind":"pass-began","trial":6,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'7B7AD49B8550D4B86A558F4EDF4A0CB1DAFFA349FD077E72ABB308291DD63394');
INSERT INTO "journal" VALUES(1,16,1781989866000,1795799248212,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57120,"score":{"value":476.6899684763249,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2199708724875158,"hottest_core":62.55688306023694,"package_power":123.433766825716,"reached_clock":4401.994168240153,"room":21.25322091926314,"usage":100.0}},"reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":6,"pass":1,"report":{"ran":90000,"rounds":57120,"score":{"value":476.6899684763249,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2199708724875158,"hottest_core":62.55688306023694,"package_power":123.433766825716,"reached_clock":4401.994168240153,"room":21.25322091926314,"usage":100.0}}},{"kind":"trial-ended","trial":6,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.04177841863546372,"low":-0.01496569209415273,"high":0.09852252936508017}},{"kind":"trial-began","trial":7,"stage":1,"rung":{"core_clock":"4450","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4400"}},{"kind":"about-to-apply","trial":7,"change":{"setting":"core_clock","from":"4400","to":"4450"}}]}',X'5848574CE802469AB67C08BE4A249D01F71D4A4DD356EE91D8EAD94EC2DF4E40');
INSERT INTO "journal" VALUES(1,17,1781989867500,1795799248213,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":7,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'E9C8B5559D40B2382882E9A71A72D83FE0266E75524D38A48E575E7113E08F90');
INSERT INTO "journal" VALUES(1,18,1781989887500,1795799248217,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":179,"score":{"value":6.74985691493226,"unit":"GB/s"},"peaks":{"die_voltage":1.2260636414915527,"hottest_core":56.66279735132953,"package_power":93.86945741326896,"reached_clock":4451.546848068525,"room":21.30979279189104,"usage":100.0}},"reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":7,"pass":0,"report":{"ran":20000,"rounds":179,"score":{"value":6.74985691493226,"unit":"GB/s"},"peaks":{"die_voltage":1.2260636414915527,"hottest_core":56.66279735132953,"package_power":93.86945741326896,"reached_clock":4451.546848068525,"room":21.30979279189104,"usage":100.0}}},{"kind":"pass-began","trial":7,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'12E8C985E60933B613B24CF3EF164E3D8F2EB0E54C6DB9C10DC830290FA88F5B');
INSERT INTO "journal" VALUES(1,19,1781989977500,1795799248255,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57687,"score":{"value":481.8374577472977,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183740271873327,"hottest_core":63.08325760593556,"package_power":124.04344508679073,"reached_clock":4452.468813842876,"room":21.275497899619264,"usage":100.0}},"reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":7,"pass":1,"report":{"ran":90000,"rounds":57687,"score":{"value":481.8374577472977,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183740271873327,"hottest_core":63.08325760593556,"package_power":124.04344508679073,"reached_clock":4452.468813842876,"room":21.275497899619264,"usage":100.0}}},{"kind":"trial-ended","trial":7,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.05302795940049765,"low":-0.0037161513291188025,"high":0.1097720701301141}},{"kind":"trial-began","trial":8,"stage":1,"rung":{"core_clock":"4500","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4450"}},{"kind":"about-to-apply","trial":8,"change":{"setting":"core_clock","from":"4450","to":"4500"}}]}',X'0D07D784F07CD6C9A350F9421E8A745BB6D1F2C4EBCDC11FF3345EA0B2222B05');
INSERT INTO "journal" VALUES(1,20,1781989979000,1795799248257,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":8,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'54A6B50EF8D5F6F5C8C52D6A475C9879102D6AD0C5F6487A0796823B03248B66');
INSERT INTO "journal" VALUES(1,21,1781989999000,1795799248261,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":180,"score":{"value":6.7840077028917865,"unit":"GB/s"},"peaks":{"die_voltage":1.2258278286430744,"hottest_core":56.761285471880605,"package_power":93.9486745854057,"reached_clock":4502.087088918224,"room":21.191084710967026,"usage":100.0}},"reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":8,"pass":0,"report":{"ran":20000,"rounds":180,"score":{"value":6.7840077028917865,"unit":"GB/s"},"peaks":{"die_voltage":1.2258278286430744,"hottest_core":56.761285471880605,"package_power":93.9486745854057,"reached_clock":4502.087088918224,"room":21.191084710967026,"usage":100.0}}},{"kind":"pass-began","trial":8,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'616AC0DE19C317AA52A112D60AA0E37E8AAAD8AB4CE5EF77D840279F162A128B');
INSERT INTO "journal" VALUES(1,22,1781990089000,1795799248285,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58252,"score":{"value":487.35903684051647,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2179579230664168,"hottest_core":63.47439820570578,"package_power":125.46310507484237,"reached_clock":4502.188811275562,"room":21.33199739210781,"usage":100.0}},"reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":8,"pass":1,"report":{"ran":90000,"rounds":58252,"score":{"value":487.35903684051647,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2179579230664168,"hottest_core":63.47439820570578,"package_power":125.46310507484237,"reached_clock":4502.188811275562,"room":21.33199739210781,"usage":100.0}}},{"kind":"trial-ended","trial":8,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.06509505188513787,"low":0.008350941155521416,"high":0.12183916261475432}},{"kind":"trial-began","trial":9,"stage":1,"rung":{"core_clock":"4550","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4500"}},{"kind":"about-to-apply","trial":9,"change":{"setting":"core_clock","from":"4500","to":"4550"}}]}',X'8E72D6AF9F60E963B9AD6D7C3498CDB467235D6B70E56B61F992C43A274BDB46');
INSERT INTO "journal" VALUES(1,23,1781990090500,1795799248286,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":9,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'CEB027BFEA3629809C29DF1E345F00880508631FB0B0B7D4C21328C5D7ADAD0E');
INSERT INTO "journal" VALUES(1,24,1781990110500,1795799248291,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":182,"score":{"value":6.8468833469081325,"unit":"GB/s"},"peaks":{"die_voltage":1.2255929232127776,"hottest_core":57.08388877844761,"package_power":95.14698529571163,"reached_clock":4551.052764546056,"room":21.200813933791498,"usage":100.0}},"reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":9,"pass":0,"report":{"ran":20000,"rounds":182,"score":{"value":6.8468833469081325,"unit":"GB/s"},"peaks":{"die_voltage":1.2255929232127776,"hottest_core":57.08388877844761,"package_power":95.14698529571163,"reached_clock":4551.052764546056,"room":21.200813933791498,"usage":100.0}}},{"kind":"pass-began","trial":9,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'F190847C13266234F2DAF67F3847B56019060DB6E80DF1D12BE9766BECFCC19E');
INSERT INTO "journal" VALUES(1,25,1781990200500,1795799248331,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58816,"score":{"value":488.2752490519486,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218281399520133,"hottest_core":63.93791730172372,"package_power":126.92683100492107,"reached_clock":4552.106304067348,"room":21.257700164230652,"usage":100.0}},"reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":9,"pass":1,"report":{"ran":90000,"rounds":58816,"score":{"value":488.2752490519486,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218281399520133,"hottest_core":63.93791730172372,"package_power":126.92683100492107,"reached_clock":4552.106304067348,"room":21.257700164230652,"usage":100.0}}},{"kind":"trial-ended","trial":9,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.06709738080305305,"low":0.010353270073436602,"high":0.1238414915326695}},{"kind":"trial-began","trial":10,"stage":1,"rung":{"core_clock":"4600","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4550"}},{"kind":"about-to-apply","trial":10,"change":{"setting":"core_clock","from":"4550","to":"4600"}}]}',X'6D21DA7B2F73371A0033B8CF7C6618B9361F2AAC8A48DDAC7E70CBCDF33CCFB6');
INSERT INTO "journal" VALUES(1,26,1781990202000,1795799248332,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":10,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'E62EC081B7305DFB44A4C259F9BCB053B05CE37A458F74054200D74784550FE7');
INSERT INTO "journal" VALUES(1,27,1781990222000,1795799248337,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":184,"score":{"value":6.932913092304678,"unit":"GB/s"},"peaks":{"die_voltage":1.2255621083748705,"hottest_core":57.78505891990172,"package_power":95.76054476943106,"reached_clock":4601.339728123542,"room":21.210049946481057,"usage":100.0}},"reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":10,"pass":0,"report":{"ran":20000,"rounds":184,"score":{"value":6.932913092304678,"unit":"GB/s"},"peaks":{"die_voltage":1.2255621083748705,"hottest_core":57.78505891990172,"package_power":95.76054476943106,"reached_clock":4601.339728123542,"room":21.210049946481057,"usage":100.0}}},{"kind":"pass-began","trial":10,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'90F1C069CC4F079ACF16C6C0ACD35A5EB1EE22A5989A1E58B58FFCF478FFC51A');
INSERT INTO "journal" VALUES(1,28,1781990312000,1795799248361,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59378,"score":{"value":495.80526987918023,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2170239811881143,"hottest_core":64.26623159462441,"package_power":127.74534850271998,"reached_clock":4602.271122153295,"room":21.354897202265555,"usage":100.0}},"reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":10,"pass":1,"report":{"ran":90000,"rounds":59378,"score":{"value":495.80526987918023,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2170239811881143,"hottest_core":64.26623159462441,"package_power":127.74534850271998,"reached_clock":4602.271122153295,"room":21.354897202265555,"usage":100.0}}},{"kind":"trial-ended","trial":10,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.08355380679993263,"low":0.026809696070316177,"high":0.14029791752954907}},{"kind":"trial-began","trial":11,"stage":1,"rung":{"core_clock":"4650","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4600"}},{"kind":"about-to-apply","trial":11,"change":{"setting":"core_clock","from":"4600","to":"4650"}}]}',X'55F8E2DD8CA20E7D33F3AF8C9CE0361B417F86AA1BAEEF7BDD43E4DB88AA8087');
INSERT INTO "journal" VALUES(1,29,1781990313500,1795799248362,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":11,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'33402EDCD89053B007D60902A08A6C82E5462975D9084167DDDDAA8D697D55DB');
INSERT INTO "journal" VALUES(1,30,1781990333500,1795799248384,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":186,"score":{"value":6.961218909770858,"unit":"GB/s"},"peaks":{"die_voltage":1.2253805130097677,"hottest_core":57.987289364022,"package_power":97.19944393356994,"reached_clock":4651.281769289345,"room":21.182583743298647,"usage":100.0}},"reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":11,"pass":0,"report":{"ran":20000,"rounds":186,"score":{"value":6.961218909770858,"unit":"GB/s"},"peaks":{"die_voltage":1.2253805130097677,"hottest_core":57.987289364022,"package_power":97.19944393356994,"reached_clock":4651.281769289345,"room":21.182583743298647,"usage":100.0}}},{"kind":"pass-began","trial":11,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'1A9CA326F773EF75810E4E81FA3D7665178C07A3014CEF565812345D0A7A3D2F');
INSERT INTO "journal" VALUES(1,31,1781990423500,1795799248408,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59939,"score":{"value":501.4144410066744,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2171174959829938,"hottest_core":64.72131965249581,"package_power":128.79580568094033,"reached_clock":4651.951123850939,"room":21.336728943094876,"usage":100.0}},"reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":11,"pass":1,"report":{"ran":90000,"rounds":59939,"score":{"value":501.4144410066744,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2171174959829938,"hottest_core":64.72131965249581,"package_power":128.79580568094033,"reached_clock":4651.951123850939,"room":21.336728943094876,"usage":100.0}}},{"kind":"trial-ended","trial":11,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09581232662096961,"low":0.03906821589135316,"high":0.15255643735058605}},{"kind":"trial-began","trial":12,"stage":1,"rung":{"core_clock":"4700","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4650"}},{"kind":"about-to-apply","trial":12,"change":{"setting":"core_clock","from":"4650","to":"4700"}}]}',X'C7B5D41B39555D64A061ADFAB1CA8B4F436B6D18502D03DA7EA4F6DD7D1B0C6C');
INSERT INTO "journal" VALUES(1,32,1781990425000,1795799248409,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":12,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'D02BA913EBEB47288031B93E2D650F21F8AD80DEBF3D901CE03D2BBFFA7B8102');
INSERT INTO "journal" VALUES(1,33,1781990445000,1795799248414,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":6.820610657475248,"unit":"GB/s"},"peaks":{"die_voltage":1.2260246621609934,"hottest_core":58.11659791067106,"package_power":97.58009055271698,"reached_clock":4701.376667619912,"room":21.172086399235145,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":12,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":6.820610657475248,"unit":"GB/s"},"peaks":{"die_voltage":1.2260246621609934,"hottest_core":58.11659791067106,"package_power":97.58009055271698,"reached_clock":4701.376667619912,"room":21.172086399235145,"usage":100.0}}},{"kind":"pass-began","trial":12,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'43AE63DBA5E2D70E5CB991D7DB0C97CF324DC3A06A9E22F0290237981D137844');
INSERT INTO "journal" VALUES(1,34,1781990535000,1795799248481,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":505.44966002398075,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216437611361353,"hottest_core":65.5929029768402,"package_power":130.45259255855171,"reached_clock":4701.962679990111,"room":21.27631306016184,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":12,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":505.44966002398075,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216437611361353,"hottest_core":65.5929029768402,"package_power":130.45259255855171,"reached_clock":4701.962679990111,"room":21.27631306016184,"usage":100.0}}},{"kind":"trial-ended","trial":12,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10463106493034524,"low":0.04788695420072879,"high":0.16137517565996168}},{"kind":"trial-began","trial":13,"stage":1,"rung":{"core_clock":"4750","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4700"}},{"kind":"about-to-apply","trial":13,"change":{"setting":"core_clock","from":"4700","to":"4750"}}]}',X'DFFDBE6CA702657A85588A2281B928370E6369E8497B7311B9FCC6B05A097F4F');
INSERT INTO "journal" VALUES(1,35,1781990536500,1795799248482,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":13,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'A856735223ACD47FC716BD5E74C5192AA65ED194F7BE927DB09EEB138E0F8644');
INSERT INTO "journal" VALUES(1,36,1781990556500,1795799248487,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":189,"score":{"value":7.124960572987172,"unit":"GB/s"},"peaks":{"die_voltage":1.224527622329192,"hottest_core":58.5976500282412,"package_power":99.38113060816264,"reached_clock":4751.636477629575,"room":21.16095745462834,"usage":100.0}},"reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":13,"pass":0,"report":{"ran":20000,"rounds":189,"score":{"value":7.124960572987172,"unit":"GB/s"},"peaks":{"die_voltage":1.224527622329192,"hottest_core":58.5976500282412,"package_power":99.38113060816264,"reached_clock":4751.636477629575,"room":21.16095745462834,"usage":100.0}}},{"kind":"pass-began","trial":13,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'F5602B322A3FBE1166643D3502E4FD20775CEB8BB5908378D181F198C09F95FC');
INSERT INTO "journal" VALUES(1,37,1781990646500,1795799248511,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":61056,"score":{"value":507.3897688845872,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216039743192874,"hottest_core":65.58324052148272,"package_power":132.18865408464046,"reached_clock":4751.82937580803,"room":21.25213190728582,"usage":100.0}},"reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":13,"pass":1,"report":{"ran":90000,"rounds":61056,"score":{"value":507.3897688845872,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216039743192874,"hottest_core":65.58324052148272,"package_power":132.18865408464046,"reached_clock":4751.82937580803,"room":21.25213190728582,"usage":100.0}}},{"kind":"trial-ended","trial":13,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10887106089091403,"low":0.05212695016129758,"high":0.16561517162053047}},{"kind":"trial-began","trial":14,"stage":1,"rung":{"core_clock":"4800","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4750"}},{"kind":"about-to-apply","trial":14,"change":{"setting":"core_clock","from":"4750","to":"4800"}}]}',X'028FEA1C90421DCCBD947BAB278C2BC83E7D208498BD50F18C2AA285A3007EAF');
INSERT INTO "journal" VALUES(1,38,1781990648000,1795799248512,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":14,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'F1C76C6D5967BA0FAA750F6AB3BF94D14325E53315D0CDC3B3818B86573E7B46');
INSERT INTO "journal" VALUES(1,39,1781990668000,1795799248517,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":191,"score":{"value":6.736050403720403,"unit":"GB/s"},"peaks":{"die_voltage":1.2245271867995924,"hottest_core":59.10447900089368,"package_power":99.98223574264497,"reached_clock":4801.15506421248,"room":21.33760840938821,"usage":100.0}},"reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":14,"pass":0,"report":{"ran":20000,"rounds":191,"score":{"value":6.736050403720403,"unit":"GB/s"},"peaks":{"die_voltage":1.2245271867995924,"hottest_core":59.10447900089368,"package_power":99.98223574264497,"reached_clock":4801.15506421248,"room":21.33760840938821,"usage":100.0}}},{"kind":"pass-began","trial":14,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'139E7F8B801E4DBA3E4CB3C3807AF79F674D2742F874B631662244E79C39CD86');
INSERT INTO "journal" VALUES(1,40,1781990758000,1795799248562,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":61612,"score":{"value":513.6719759793428,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2174256017616099,"hottest_core":66.15677925266174,"package_power":132.45429794857154,"reached_clock":4802.09328843053,"room":21.2183818058914,"usage":100.0}},"reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":14,"pass":1,"report":{"ran":90000,"rounds":61612,"score":{"value":513.6719759793428,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2174256017616099,"hottest_core":66.15677925266174,"package_power":132.45429794857154,"reached_clock":4802.09328843053,"room":21.2183818058914,"usage":100.0}}},{"kind":"trial-ended","trial":14,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.12260046198075458,"low":0.06585635125113813,"high":0.17934457271037102}},{"kind":"trial-began","trial":15,"stage":1,"rung":{"core_clock":"4850","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4800"}},{"kind":"about-to-apply","trial":15,"change":{"setting":"core_clock","from":"4800","to":"4850"}}]}',X'0512DFFC9B9CEF1AC592EEF51AE77EF6ADB1DEE4FC64290D7AE7A37276CEBC19');
INSERT INTO "journal" VALUES(1,41,1781990759500,1795799248563,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4850","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":15,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'7D4D5082B48E0490FA0DFA890457981CBE8070DC8E9E0BDDE32B194BD0599D60');
INSERT INTO "journal" VALUES(1,42,1781990779500,1795799248568,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":193,"score":{"value":7.243372004122308,"unit":"GB/s"},"peaks":{"die_voltage":1.223938216717285,"hottest_core":59.1276984274366,"package_power":101.18517887775283,"reached_clock":4852.0908609918415,"room":21.20303316467923,"usage":100.0}},"reported":{"core_clock":"4850","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":15,"pass":0,"report":{"ran":20000,"rounds":193,"score":{"value":7.243372004122308,"unit":"GB/s"},"peaks":{"die_voltage":1.223938216717285,"hottest_core":59.1276984274366,"package_power":101.18517887775283,"reached_clock":4852.0908609918415,"room":21.20303316467923,"usage":100.0}}},{"kind":"pass-began","trial":15,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'B28D9FFDEE614F44955E4D74CEB4C2D8A0B8C64E706CB430E29D56B23ECB8175');
INSERT INTO "journal" VALUES(1,43,1781990831000,1795799248583,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":51500,"rounds":35508,"incidents":[{"incident":"wrong-result","place":"core 4","into_pass":51500,"evidence":"scaled residual 895.1, allowed 16"}],"peaks":{"die_voltage":1.2161877235140937,"hottest_core":65.91729919339257,"package_power":134.1460343745377,"reached_clock":4851.666475199937,"room":21.217931160282454,"usage":100.0}},"reported":{"core_clock":"4850","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":15,"pass":1,"report":{"ran":51500,"rounds":35508,"incidents":[{"incident":"wrong-result","place":"core 4","into_pass":51500,"evidence":"scaled residual 895.1, allowed 16"}],"peaks":{"die_voltage":1.2161877235140937,"hottest_core":65.91729919339257,"package_power":134.1460343745377,"reached_clock":4851.666475199937,"room":21.217931160282454,"usage":100.0}}},{"kind":"incident","trial":15,"pass":1,"incident":"wrong-result","place":"core 4","into_pass":51500,"evidence":"scaled residual 895.1, allowed 16"},{"kind":"trial-ended","trial":15,"verdict":"fell","incident":"wrong-result","tested":71500},{"kind":"trial-began","trial":16,"stage":1,"rung":{"core_clock":"4800","core_voltage":"1.250"},"proof":"quick","reason":{"why":"step-back","setting":"core_clock","from":"4850","depth":"shallow"}},{"kind":"about-to-apply","trial":16,"change":{"setting":"core_clock","from":"4850","to":"4800"}}]}',X'833F8D493A47E586A7D9102921BEE2B458508EE86814BF2E09EC07ACAF04FD33');
INSERT INTO "journal" VALUES(1,44,1781990832500,1795799248584,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":16,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'1B7703E8ED78910C22649498265BD2D42AE2A99EC912774BB4CCBE06AAC6436B');
INSERT INTO "journal" VALUES(1,45,1781990852500,1795799248589,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":191,"score":{"value":7.17400140180046,"unit":"GB/s"},"peaks":{"die_voltage":1.2248957927515143,"hottest_core":59.1073687058003,"package_power":99.59257710841578,"reached_clock":4801.8421389737905,"room":21.297596216270616,"usage":100.0}},"reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":16,"pass":0,"report":{"ran":20000,"rounds":191,"score":{"value":7.17400140180046,"unit":"GB/s"},"peaks":{"die_voltage":1.2248957927515143,"hottest_core":59.1073687058003,"package_power":99.59257710841578,"reached_clock":4801.8421389737905,"room":21.297596216270616,"usage":100.0}}},{"kind":"pass-began","trial":16,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'D36B863CA6E799DC0155C5B93AB7E0C81CD88F9671F65EE7C5E24CBE216F4993');
INSERT INTO "journal" VALUES(1,46,1781990859750,1795799248591,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":7250,"rounds":4941,"incidents":[{"incident":"wrong-result","place":"core 6","into_pass":7250,"evidence":"scaled residual 5337.8, allowed 16"}],"peaks":{"die_voltage":1.214371825892405,"hottest_core":64.07948437227803,"package_power":132.07885071043913,"reached_clock":4801.003576276969,"room":21.27335647698736,"usage":100.0}},"reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":16,"pass":1,"report":{"ran":7250,"rounds":4941,"incidents":[{"incident":"wrong-result","place":"core 6","into_pass":7250,"evidence":"scaled residual 5337.8, allowed 16"}],"peaks":{"die_voltage":1.214371825892405,"hottest_core":64.07948437227803,"package_power":132.07885071043913,"reached_clock":4801.003576276969,"room":21.27335647698736,"usage":100.0}}},{"kind":"incident","trial":16,"pass":1,"incident":"wrong-result","place":"core 6","into_pass":7250,"evidence":"scaled residual 5337.8, allowed 16"},{"kind":"trial-ended","trial":16,"verdict":"fell","incident":"wrong-result","tested":27250},{"kind":"trial-began","trial":17,"stage":1,"rung":{"core_clock":"4750","core_voltage":"1.250"},"proof":"quick","reason":{"why":"step-back","setting":"core_clock","from":"4800","depth":"shallow"}},{"kind":"about-to-apply","trial":17,"change":{"setting":"core_clock","from":"4800","to":"4750"}}]}',X'D6E825208175E376BE1E5487CE05D44A6FD305F8125AF9F659C21199A78A43BC');
INSERT INTO "journal" VALUES(1,47,1781990861250,1795799248592,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":17,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'12C290A4E58C074E57E04BE8AA7C623382D1B3A051D4A6A03EFAA0587378584A');
INSERT INTO "journal" VALUES(1,48,1781990881250,1795799248613,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":189,"score":{"value":7.117883414515735,"unit":"GB/s"},"peaks":{"die_voltage":1.2239724333740283,"hottest_core":57.73331108349131,"package_power":99.18193053924894,"reached_clock":4750.91712157277,"room":21.233087939415306,"usage":100.0}},"reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":17,"pass":0,"report":{"ran":20000,"rounds":189,"score":{"value":7.117883414515735,"unit":"GB/s"},"peaks":{"die_voltage":1.2239724333740283,"hottest_core":57.73331108349131,"package_power":99.18193053924894,"reached_clock":4750.91712157277,"room":21.233087939415306,"usage":100.0}}},{"kind":"pass-began","trial":17,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'D0A315361C4F9A2A71428C622F465CB740B4382EDD696C9C95D9CFCAAF191304');
INSERT INTO "journal" VALUES(1,49,1781990900250,1795799248618,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":19000,"rounds":12762,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":19000,"evidence":"3 errors counted and repaired"}],"peaks":{"die_voltage":1.2154658938730563,"hottest_core":63.646509689853865,"package_power":130.99159593327443,"reached_clock":4751.561504363024,"room":21.19170939266231,"usage":100.0}},"reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":17,"pass":1,"report":{"ran":19000,"rounds":12762,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":19000,"evidence":"3 errors counted and repaired"}],"peaks":{"die_voltage":1.2154658938730563,"hottest_core":63.646509689853865,"package_power":130.99159593327443,"reached_clock":4751.561504363024,"room":21.19170939266231,"usage":100.0}}},{"kind":"incident","trial":17,"pass":1,"incident":"corrected-error","place":"core 1","into_pass":19000,"evidence":"3 errors counted and repaired"},{"kind":"trial-ended","trial":17,"verdict":"slipped","incident":"corrected-error","tested":39000},{"kind":"trial-began","trial":18,"stage":1,"rung":{"core_clock":"4700","core_voltage":"1.250"},"proof":"quick","reason":{"why":"step-back","setting":"core_clock","from":"4750","depth":"shallow"}},{"kind":"about-to-apply","trial":18,"change":{"setting":"core_clock","from":"4750","to":"4700"}}]}',X'E284F559A3016D657CA6CB3305DAFCE6244CB7FB3B8294A61D84D6649FABD154');
INSERT INTO "journal" VALUES(1,50,1781990901750,1795799248619,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":18,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'4A52A860B26E67C791E0E2BB33791560075CE6A84E05B2F3A6BDB172AE3BED25');
INSERT INTO "journal" VALUES(1,51,1781990921750,1795799248625,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.020783775405346,"unit":"GB/s"},"peaks":{"die_voltage":1.2244942697747814,"hottest_core":57.05058284689454,"package_power":97.53220798323099,"reached_clock":4701.658327837756,"room":21.22060664798409,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":18,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.020783775405346,"unit":"GB/s"},"peaks":{"die_voltage":1.2244942697747814,"hottest_core":57.05058284689454,"package_power":97.53220798323099,"reached_clock":4701.658327837756,"room":21.22060664798409,"usage":100.0}}},{"kind":"pass-began","trial":18,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'850E8498EC3CDCC960665751B67C2BCB8484D1588B0871E526D098606C24EAC0');
INSERT INTO "journal" VALUES(1,52,1781991011750,1795799248648,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":506.38512628036426,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2168168467530172,"hottest_core":64.77610764628298,"package_power":129.9115152791564,"reached_clock":4701.762882188089,"room":21.24415568936492,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":18,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":506.38512628036426,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2168168467530172,"hottest_core":64.77610764628298,"package_power":129.9115152791564,"reached_clock":4701.762882188089,"room":21.24415568936492,"usage":100.0}}},{"kind":"trial-ended","trial":18,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10667547245244391,"low":0.04993136172282746,"high":0.16341958318206035}},{"kind":"mark-set","mark":{"rung":{"core_clock":"4700","core_voltage":"1.250"},"setting":"core_clock","proof":"quick","trial":18,"stage":1}},{"kind":"stage-ended","stage":1,"end":{"because":"next-did-not-hold","setting":"core_clock","value":"4750","verdict":"slipped","incident":"corrected-error"}},{"kind":"stage-began","stage":2,"strategy":"trim"},{"kind":"trial-began","trial":19,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.245"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.250"}},{"kind":"about-to-apply","trial":19,"change":{"setting":"core_voltage","from":"1.250","to":"1.245"}}]}',X'226B01354CCD41B413726D326EBF19EF1150830B4A4833317073E3B7E23DA86F');
INSERT INTO "journal" VALUES(1,53,1781991013250,1795799248649,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.245"}},"entries":[{"kind":"pass-began","trial":19,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'00FCD9B092DFC8730C6E42B45EA69A9BB36FC46DD31697C7A1755DA092748283');
INSERT INTO "journal" VALUES(1,54,1781991033250,1795799248654,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.015248415422142,"unit":"GB/s"},"peaks":{"die_voltage":1.2210470002137164,"hottest_core":58.2223849917443,"package_power":96.98280299020348,"reached_clock":4701.670567810738,"room":21.297893116953222,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.245"}},"entries":[{"kind":"pass-ended","trial":19,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.015248415422142,"unit":"GB/s"},"peaks":{"die_voltage":1.2210470002137164,"hottest_core":58.2223849917443,"package_power":96.98280299020348,"reached_clock":4701.670567810738,"room":21.297893116953222,"usage":100.0}}},{"kind":"pass-began","trial":19,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'78CDAA99A7B2AE4C8F8F86D74AC129BC5F263E290CD34C611CE5C4B65E5CB58C');
INSERT INTO "journal" VALUES(1,55,1781991123250,1795799248702,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":503.80985627136704,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2115422826021405,"hottest_core":64.92208607680303,"package_power":129.16659408805776,"reached_clock":4701.838810119685,"room":21.223021050107196,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.245"}},"entries":[{"kind":"pass-ended","trial":19,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":503.80985627136704,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2115422826021405,"hottest_core":64.92208607680303,"package_power":129.16659408805776,"reached_clock":4701.838810119685,"room":21.223021050107196,"usage":100.0}}},{"kind":"trial-ended","trial":19,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10104736845414108,"low":0.04430325772452463,"high":0.15779147918375752}},{"kind":"trial-began","trial":20,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.240"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.245"}},{"kind":"about-to-apply","trial":20,"change":{"setting":"core_voltage","from":"1.245","to":"1.240"}}]}',X'F5DF5DA20295020380BF6C3ABA32F94843032593916FA67B9227BD6CAC2A3D42');
INSERT INTO "journal" VALUES(1,56,1781991124750,1795799248703,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.240"}},"entries":[{"kind":"pass-began","trial":20,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9FB5A1F1BACB4ECA27BB413E302969E731F4A0147FF138B2E3D82183862AD183');
INSERT INTO "journal" VALUES(1,57,1781991144750,1795799248708,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.038278431408559,"unit":"GB/s"},"peaks":{"die_voltage":1.2144824024872602,"hottest_core":57.85320538629741,"package_power":97.19702432418539,"reached_clock":4701.273604924903,"room":21.209646234601124,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.240"}},"entries":[{"kind":"pass-ended","trial":20,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.038278431408559,"unit":"GB/s"},"peaks":{"die_voltage":1.2144824024872602,"hottest_core":57.85320538629741,"package_power":97.19702432418539,"reached_clock":4701.273604924903,"room":21.209646234601124,"usage":100.0}}},{"kind":"pass-began","trial":20,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'3D4488BC7BA709CC40F3A7895C131DCA3C801202D81316ACC637734F66F48720');
INSERT INTO "journal" VALUES(1,58,1781991234750,1795799248743,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":503.3422602638527,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2074570804081841,"hottest_core":64.71839558009066,"package_power":128.50247847218023,"reached_clock":4701.782695984255,"room":21.301002493555284,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.240"}},"entries":[{"kind":"pass-ended","trial":20,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":503.3422602638527,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2074570804081841,"hottest_core":64.71839558009066,"package_power":128.50247847218023,"reached_clock":4701.782695984255,"room":21.301002493555284,"usage":100.0}}},{"kind":"trial-ended","trial":20,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10002546436241966,"low":0.04328135363280321,"high":0.1567695750920361}},{"kind":"trial-began","trial":21,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.235"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.240"}},{"kind":"about-to-apply","trial":21,"change":{"setting":"core_voltage","from":"1.240","to":"1.235"}}]}',X'2387FD2EA3163252DB6B8C379BB9FE3C96FC8D93077D3A7981592E9BF201C871');
INSERT INTO "journal" VALUES(1,59,1781991236250,1795799248744,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.235"}},"entries":[{"kind":"pass-began","trial":21,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'A997BD3D8368E566A822DC68C0CE40268B573C85B79F4115122694163BDC9241');
INSERT INTO "journal" VALUES(1,60,1781991256250,1795799248767,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.078597086371062,"unit":"GB/s"},"peaks":{"die_voltage":1.2102588035514752,"hottest_core":58.011805492973245,"package_power":95.97068184840019,"reached_clock":4701.574674804757,"room":21.28862877973617,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.235"}},"entries":[{"kind":"pass-ended","trial":21,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.078597086371062,"unit":"GB/s"},"peaks":{"die_voltage":1.2102588035514752,"hottest_core":58.011805492973245,"package_power":95.97068184840019,"reached_clock":4701.574674804757,"room":21.28862877973617,"usage":100.0}}},{"kind":"pass-began","trial":21,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'C83D2501AE9A805642602D08DAFEFD5B5EEA8FF2F426116494BDA47905C98765');
INSERT INTO "journal" VALUES(1,61,1781991346250,1795799248795,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":505.3091655476718,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2018428329732638,"hottest_core":64.4346381962995,"package_power":127.41527192813764,"reached_clock":4701.8445749544335,"room":21.26742939254304,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.235"}},"entries":[{"kind":"pass-ended","trial":21,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":505.3091655476718,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2018428329732638,"hottest_core":64.4346381962995,"package_power":127.41527192813764,"reached_clock":4701.8445749544335,"room":21.26742939254304,"usage":100.0}}},{"kind":"trial-ended","trial":21,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10432402235962779,"low":0.04757991163001134,"high":0.16106813308924423}},{"kind":"trial-began","trial":22,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.230"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.235"}},{"kind":"about-to-apply","trial":22,"change":{"setting":"core_voltage","from":"1.235","to":"1.230"}}]}',X'A8F878CE56CC4F48AE62768202D3ED4F6FE6C9FC69EB45F09C8791843CC2132B');
INSERT INTO "journal" VALUES(1,62,1781991347750,1795799248797,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-began","trial":22,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'BA118C1F24E0BA40F681B2A23C526ED098620604D4DA44CAAD8D1030A40BB2DC');
INSERT INTO "journal" VALUES(1,63,1781991367750,1795799248802,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.014196350592962,"unit":"GB/s"},"peaks":{"die_voltage":1.205246898206489,"hottest_core":57.42019895200241,"package_power":95.38896919257566,"reached_clock":4701.495149973123,"room":21.24273649636831,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-ended","trial":22,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.014196350592962,"unit":"GB/s"},"peaks":{"die_voltage":1.205246898206489,"hottest_core":57.42019895200241,"package_power":95.38896919257566,"reached_clock":4701.495149973123,"room":21.24273649636831,"usage":100.0}}},{"kind":"pass-began","trial":22,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'67CFAC0FA518E463D7619F46F06C19FEC57B54B04DD3120D00E6FB83B71B87FC');
INSERT INTO "journal" VALUES(1,64,1781991457750,1795799248841,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":502.86692641586455,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1970410938748863,"hottest_core":64.42818958802012,"package_power":126.59708104292035,"reached_clock":4702.474282966658,"room":21.288601724454576,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-ended","trial":22,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":502.86692641586455,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1970410938748863,"hottest_core":64.42818958802012,"package_power":126.59708104292035,"reached_clock":4702.474282966658,"room":21.288601724454576,"usage":100.0}}},{"kind":"trial-ended","trial":22,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09898664966685589,"low":0.042242538937239435,"high":0.15573076039647232}},{"kind":"trial-began","trial":23,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.225"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.230"}},{"kind":"about-to-apply","trial":23,"change":{"setting":"core_voltage","from":"1.230","to":"1.225"}}]}',X'4E2C77E7132949DCA23D3EF47C5AE244278C1A354F6E442240DB8200C775017F');
INSERT INTO "journal" VALUES(1,65,1781991459250,1795799248842,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.225"}},"entries":[{"kind":"pass-began","trial":23,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'59BC51754FA41E7CFA3BEA68BAEB276B11C31EB08323E006A8ED31386D8FEC46');
INSERT INTO "journal" VALUES(1,66,1781991479250,1795799248846,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.017271571923407,"unit":"GB/s"},"peaks":{"die_voltage":1.2002548471859358,"hottest_core":57.26306657669442,"package_power":94.43794080023049,"reached_clock":4701.217408817658,"room":21.29561031103942,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.225"}},"entries":[{"kind":"pass-ended","trial":23,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.017271571923407,"unit":"GB/s"},"peaks":{"die_voltage":1.2002548471859358,"hottest_core":57.26306657669442,"package_power":94.43794080023049,"reached_clock":4701.217408817658,"room":21.29561031103942,"usage":100.0}}},{"kind":"pass-began","trial":23,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'9B8BF74F253E6B521A2F8E63BA4137AF857D3B6147A6F51941E463EB4F8ACF10');
INSERT INTO "journal" VALUES(1,67,1781991535750,1795799248861,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":56500,"rounds":37853,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":56500,"evidence":"4 errors counted and repaired"}],"peaks":{"die_voltage":1.1921610242494056,"hottest_core":63.249291995031,"package_power":125.23319927338522,"reached_clock":4701.97103031438,"room":21.199879903446643,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.225"}},"entries":[{"kind":"pass-ended","trial":23,"pass":1,"report":{"ran":56500,"rounds":37853,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":56500,"evidence":"4 errors counted and repaired"}],"peaks":{"die_voltage":1.1921610242494056,"hottest_core":63.249291995031,"package_power":125.23319927338522,"reached_clock":4701.97103031438,"room":21.199879903446643,"usage":100.0}}},{"kind":"incident","trial":23,"pass":1,"incident":"corrected-error","place":"core 1","into_pass":56500,"evidence":"4 errors counted and repaired"},{"kind":"trial-ended","trial":23,"verdict":"slipped","incident":"corrected-error","tested":76500},{"kind":"trial-began","trial":24,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.230"},"proof":"quick","reason":{"why":"step-back","setting":"core_voltage","from":"1.225","depth":"shallow"}},{"kind":"about-to-apply","trial":24,"change":{"setting":"core_voltage","from":"1.225","to":"1.230"}}]}',X'6A374AFE83459487DFF5D58586D5FAB0D6CA4310C1B8454052A3197934650B9E');
INSERT INTO "journal" VALUES(1,68,1781991537250,1795799248862,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-began","trial":24,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'515FE1CB69EACBEF876871A392301724118FDEEFEE06C88606532D9443F437BE');
INSERT INTO "journal" VALUES(1,69,1781991557250,1795799248866,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.031543691947086,"unit":"GB/s"},"peaks":{"die_voltage":1.2062159054735386,"hottest_core":56.963739576011434,"package_power":95.43871815869119,"reached_clock":4701.1967311529115,"room":21.24380019890123,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-ended","trial":24,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.031543691947086,"unit":"GB/s"},"peaks":{"die_voltage":1.2062159054735386,"hottest_core":56.963739576011434,"package_power":95.43871815869119,"reached_clock":4701.1967311529115,"room":21.24380019890123,"usage":100.0}}},{"kind":"pass-began","trial":24,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'DA5CC814156CEFF060EF1AF8B3104F0C833CA646A96DE3201B576F4DD6C9C07A');
INSERT INTO "journal" VALUES(1,70,1781991647250,1795799248913,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":501.85148618414166,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1972497576359797,"hottest_core":63.798923978732724,"package_power":127.21953670253376,"reached_clock":4701.583797295868,"room":21.219350795752867,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-ended","trial":24,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":501.85148618414166,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1972497576359797,"hottest_core":63.798923978732724,"package_power":127.21953670253376,"reached_clock":4701.583797295868,"room":21.219350795752867,"usage":100.0}}},{"kind":"trial-ended","trial":24,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09676746363656386,"low":0.040023352906947404,"high":0.1535115743661803}},{"kind":"mark-set","mark":{"rung":{"core_clock":"4700","core_voltage":"1.230"},"setting":"core_voltage","proof":"quick","trial":24,"stage":2}},{"kind":"stage-ended","stage":2,"end":{"because":"next-did-not-hold","setting":"core_voltage","value":"1.225","verdict":"slipped","incident":"corrected-error"}},{"kind":"going-home","end":{"how":"completed"}},{"kind":"about-to-apply","trial":null,"change":{"setting":"core_clock","from":"4700","to":"4300"}}]}',X'11A01CA9CD17D2A7AB2EA1DF349EDE27D1661AB1AA3FFE46ADDE787DE3B60961');
INSERT INTO "journal" VALUES(1,71,1781991648750,1795799248914,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4300","core_voltage":"1.230"}},"entries":[{"kind":"about-to-apply","trial":null,"change":{"setting":"core_clock","from":"4300","to":"4200"}}]}',X'1CE5DEBCA2323D546847CE0A4FC5EB60A5D694BA3B7FEA515EA8CD43B6F8F78B');
INSERT INTO "journal" VALUES(1,72,1781991650250,1795799248914,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4200","core_voltage":"1.230"}},"entries":[{"kind":"about-to-apply","trial":null,"change":{"setting":"core_voltage","from":"1.230","to":"1.250"}}]}',X'0D0E16DDD6D16E05CF65D89AE2A1B6E055A588A8565A017CC1C0DB093A02BB5E');
INSERT INTO "journal" VALUES(1,73,1781991651750,1795799248915,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"ended","how":"completed","marks":[{"rung":{"core_clock":"4700","core_voltage":"1.250"},"setting":"core_clock","proof":"quick","trial":18,"stage":1},{"rung":{"core_clock":"4700","core_voltage":"1.230"},"setting":"core_voltage","proof":"quick","trial":24,"stage":2}],"trials":24,"falls":2,"tested":2414250,"test_hours":0.670625}]}',X'7BACA08CF8E14D42334F35BD23759C4335803DA09197EC186EF5018D0FEA68CA');
INSERT INTO "journal" VALUES(2,0,1781989200000,1795799248961,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"started","in_force":{"core_clock":"4200","core_voltage":"1.250"},"ahead":0,"rules":1},"entries":[{"kind":"began","in_force":{"core_clock":"4200","core_voltage":"1.250"}},{"kind":"stage-began","stage":0,"strategy":"baseline"},{"kind":"trial-began","trial":1,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":1,"of":2}},{"kind":"pass-began","trial":1,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'C1A380D62B2BADF598033A9B91E3D09849E52C204AA5891C042E13CB659C21F7');
INSERT INTO "journal" VALUES(2,1,1781989220000,1795799249003,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.398610342087183,"unit":"GB/s"},"peaks":{"die_voltage":1.2285158214070884,"hottest_core":43.79624816935103,"package_power":87.73841466235802,"reached_clock":4201.370213554177,"room":21.186304835186146,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":1,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.398610342087183,"unit":"GB/s"},"peaks":{"die_voltage":1.2285158214070884,"hottest_core":43.79624816935103,"package_power":87.73841466235802,"reached_clock":4201.370213554177,"room":21.186304835186146,"usage":100.0}}},{"kind":"pass-began","trial":1,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'D2F69CF928DCA4357BF8CDBA680F4CA1D44C44CC32882249F2FDE5EB13FF2957');
INSERT INTO "journal" VALUES(2,2,1781989310000,1795799249184,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":456.9582535822856,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201272195339483,"hottest_core":57.927241044426886,"package_power":117.6527637938939,"reached_clock":4201.818995155663,"room":21.31362575157369,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":1,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":456.9582535822856,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201272195339483,"hottest_core":57.927241044426886,"package_power":117.6527637938939,"reached_clock":4201.818995155663,"room":21.31362575157369,"usage":100.0}}},{"kind":"trial-ended","trial":1,"verdict":"held","incident":null,"tested":110000},{"kind":"trial-began","trial":2,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":2,"of":2}},{"kind":"pass-began","trial":2,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'584526574BA935446EABF2862AC39774B2ED762AE4B3855030FC768D93001442');
INSERT INTO "journal" VALUES(2,3,1781989330000,1795799249224,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.392064093521956,"unit":"GB/s"},"peaks":{"die_voltage":1.2276649637285793,"hottest_core":55.136143296685994,"package_power":89.1918060489409,"reached_clock":4201.230025065305,"room":21.228273380391474,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":2,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.392064093521956,"unit":"GB/s"},"peaks":{"die_voltage":1.2276649637285793,"hottest_core":55.136143296685994,"package_power":89.1918060489409,"reached_clock":4201.230025065305,"room":21.228273380391474,"usage":100.0}}},{"kind":"pass-began","trial":2,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'DD9AAFA95798BFFBF96F92E4ED29B61FEE55C578406A871776F0E1BF404F9EE6');
INSERT INTO "journal" VALUES(2,4,1781989420000,1795799249404,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":455.7758670656916,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2200739154428324,"hottest_core":60.40193734658071,"package_power":118.05151239238207,"reached_clock":4202.452433008968,"room":21.2175510931735,"usage":100.0}},"reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":2,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":455.7758670656916,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2200739154428324,"hottest_core":60.40193734658071,"package_power":118.05151239238207,"reached_clock":4202.452433008968,"room":21.2175510931735,"usage":100.0}}},{"kind":"trial-ended","trial":2,"verdict":"held","incident":null,"tested":110000},{"kind":"stage-ended","stage":0,"end":{"because":"baseline-held"}},{"kind":"stage-began","stage":1,"strategy":"ascend"},{"kind":"trial-began","trial":3,"stage":1,"rung":{"core_clock":"4250","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4200"}},{"kind":"about-to-apply","trial":3,"change":{"setting":"core_clock","from":"4200","to":"4250"}}]}',X'AB30F9DA6A9CCC1CC4D835E5CCBF218C2194C66175B1D7FDAC3726A7E541D91A');
INSERT INTO "journal" VALUES(2,5,1781989421500,1795799249405,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":3,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'559AEAE0F683297ED5B821B7061A2D2DCA2BEE1C9EB265FD03B1D97DCE1B8F05');
INSERT INTO "journal" VALUES(2,6,1781989441500,1795799249446,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":172,"score":{"value":6.452169106785163,"unit":"GB/s"},"peaks":{"die_voltage":1.2271163174613322,"hottest_core":54.517997818813356,"package_power":90.04057622133786,"reached_clock":4250.954001917154,"room":21.162936079672328,"usage":100.0}},"reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":3,"pass":0,"report":{"ran":20000,"rounds":172,"score":{"value":6.452169106785163,"unit":"GB/s"},"peaks":{"die_voltage":1.2271163174613322,"hottest_core":54.517997818813356,"package_power":90.04057622133786,"reached_clock":4250.954001917154,"room":21.162936079672328,"usage":100.0}}},{"kind":"pass-began","trial":3,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'BA4982F2341396A1592A076934F40DBB70CDD97F50FB79BA11300C4AD03CBD82');
INSERT INTO "journal" VALUES(2,7,1781989531500,1795799249627,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55408,"score":{"value":461.158572577245,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197435232789342,"hottest_core":61.27463606104526,"package_power":119.60266584381364,"reached_clock":4252.27301027875,"room":21.243108313730044,"usage":100.0}},"reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":3,"pass":1,"report":{"ran":90000,"rounds":55408,"score":{"value":461.158572577245,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197435232789342,"hottest_core":61.27463606104526,"package_power":119.60266584381364,"reached_clock":4252.27301027875,"room":21.243108313730044,"usage":100.0}}},{"kind":"trial-ended","trial":3,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.010499250865859677,"low":-0.018009924860365383,"high":0.03900842659208474}},{"kind":"trial-began","trial":4,"stage":1,"rung":{"core_clock":"4300","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4250"}},{"kind":"about-to-apply","trial":4,"change":{"setting":"core_clock","from":"4250","to":"4300"}}]}',X'9E74D2D5F4993E23009E670A8C57008468375C89A0EC656F274BAE5C0C1E33E5');
INSERT INTO "journal" VALUES(2,8,1781989533000,1795799249628,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":4,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'3ADC00184279F26AB7BE35353D7238ED36FD0A06BDC36E96C5DEB8BBAC155E57');
INSERT INTO "journal" VALUES(2,9,1781989553000,1795799249669,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":173,"score":{"value":6.523894447113577,"unit":"GB/s"},"peaks":{"die_voltage":1.226818704492642,"hottest_core":55.36035698521389,"package_power":90.93126461132807,"reached_clock":4301.43011657848,"room":21.167275622484723,"usage":100.0}},"reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":4,"pass":0,"report":{"ran":20000,"rounds":173,"score":{"value":6.523894447113577,"unit":"GB/s"},"peaks":{"die_voltage":1.226818704492642,"hottest_core":55.36035698521389,"package_power":90.93126461132807,"reached_clock":4301.43011657848,"room":21.167275622484723,"usage":100.0}}},{"kind":"pass-began","trial":4,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'7020F6C1CF43A9FA2F057B169DF89384B591F62140E7A56C5C35A325036B2507');
INSERT INTO "journal" VALUES(2,10,1781989643000,1795799249850,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55980,"score":{"value":463.3815801241597,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2188005483285784,"hottest_core":62.061784465839736,"package_power":120.4347750981511,"reached_clock":4301.791394030403,"room":21.263753963670208,"usage":100.0}},"reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":4,"pass":1,"report":{"ran":90000,"rounds":55980,"score":{"value":463.3815801241597,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2188005483285784,"hottest_core":62.061784465839736,"package_power":120.4347750981511,"reached_clock":4301.791394030403,"room":21.263753963670208,"usage":100.0}}},{"kind":"trial-ended","trial":4,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.015370346394394163,"low":-0.013138829331830897,"high":0.04387952212061923}},{"kind":"trial-began","trial":5,"stage":1,"rung":{"core_clock":"4350","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4300"}},{"kind":"about-to-apply","trial":5,"change":{"setting":"core_clock","from":"4300","to":"4350"}}]}',X'2845B99A9472EEF183C1AEC058A5B18483682014BC01B161EB85A32C51EEA3A6');
INSERT INTO "journal" VALUES(2,11,1781989644500,1795799249851,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":5,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'B304E1990EB481F976457BB691C21B04F87AE4A03FE2D74F46A743EE45261BB7');
INSERT INTO "journal" VALUES(2,12,1781989664500,1795799249892,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":175,"score":{"value":6.578615118258257,"unit":"GB/s"},"peaks":{"die_voltage":1.2266949418914643,"hottest_core":55.82187360392577,"package_power":92.05413095671585,"reached_clock":4351.190477996479,"room":21.19234402810559,"usage":100.0}},"reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":5,"pass":0,"report":{"ran":20000,"rounds":175,"score":{"value":6.578615118258257,"unit":"GB/s"},"peaks":{"die_voltage":1.2266949418914643,"hottest_core":55.82187360392577,"package_power":92.05413095671585,"reached_clock":4351.190477996479,"room":21.19234402810559,"usage":100.0}}},{"kind":"pass-began","trial":5,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'84CB79EFE36739EE568AF42E8D7BFD01EF6438FD3C29B50D59F16BFBBD094306');
INSERT INTO "journal" VALUES(2,13,1781989754500,1795799250073,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":56551,"score":{"value":471.75261225149717,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2191299866087189,"hottest_core":62.18606893724389,"package_power":121.88688696782206,"reached_clock":4351.848357199802,"room":21.24355825351363,"usage":100.0}},"reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":5,"pass":1,"report":{"ran":90000,"rounds":56551,"score":{"value":471.75261225149717,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2191299866087189,"hottest_core":62.18606893724389,"package_power":121.88688696782206,"reached_clock":4351.848357199802,"room":21.24355825351363,"usage":100.0}}},{"kind":"trial-ended","trial":5,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.033713107857928915,"low":0.005203932131703854,"high":0.06222228358415398}},{"kind":"trial-began","trial":6,"stage":1,"rung":{"core_clock":"4400","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4350"}},{"kind":"about-to-apply","trial":6,"change":{"setting":"core_clock","from":"4350","to":"4400"}}]}',X'9233747B889BB42525FC8A6A8E942BDD8490427EB6732628551CD28FEA4FE51C');
INSERT INTO "journal" VALUES(2,14,1781989756000,1795799250074,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":6,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'7DDFB425315CB9885C03874B1955FC2091C52DBCD32DFF7CD5CCAA8B77CA1A76');
INSERT INTO "journal" VALUES(2,15,1781989776000,1795799250132,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":177,"score":{"value":6.618371223819829,"unit":"GB/s"},"peaks":{"die_voltage":1.2274181926211767,"hottest_core":56.18274836307292,"package_power":92.93939579987621,"reached_clock":4401.629403814618,"room":21.18799982681279,"usage":100.0}},"reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":6,"pass":0,"report":{"ran":20000,"rounds":177,"score":{"value":6.618371223819829,"unit":"GB/s"},"peaks":{"die_voltage":1.2274181926211767,"hottest_core":56.18274836307292,"package_power":92.93939579987621,"reached_clock":4401.629403814618,"room":21.18799982681279,"usage":100.0}}},{"kind":"pass-began","trial":6,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'3FE5FECF52D26E3C474D6EB645BFE48068A92C2B32AEDF061C3F33B09AC0D26C');
INSERT INTO "journal" VALUES(2,16,1781989866000,1795799250296,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57120,"score":{"value":476.7698141791481,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218885895220915,"hottest_core":62.9200141500892,"package_power":123.16346097838142,"reached_clock":4401.846525984002,"room":21.217034019962643,"usage":100.0}},"reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":6,"pass":1,"report":{"ran":90000,"rounds":57120,"score":{"value":476.7698141791481,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218885895220915,"hottest_core":62.9200141500892,"package_power":123.16346097838142,"reached_clock":4401.846525984002,"room":21.217034019962643,"usage":100.0}}},{"kind":"trial-ended","trial":6,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.04470689414059592,"low":0.01619771841437086,"high":0.07321606986682098}},{"kind":"trial-began","trial":7,"stage":1,"rung":{"core_clock":"4450","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4400"}},{"kind":"about-to-apply","trial":7,"change":{"setting":"core_clock","from":"4400","to":"4450"}}]}',X'9DD83FD9F239798A6FAE70E677604FBA1764C5F6223018D34809029A20863306');
INSERT INTO "journal" VALUES(2,17,1781989867500,1795799250297,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":7,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'7A3775D9678AA72007FEB889752D94A983E70B922BDCC275F6B20D2109A01030');
INSERT INTO "journal" VALUES(2,18,1781989887500,1795799250338,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":179,"score":{"value":6.719521993978934,"unit":"GB/s"},"peaks":{"die_voltage":1.2260095451962043,"hottest_core":56.64118722518271,"package_power":93.39104318255217,"reached_clock":4451.038241110305,"room":21.221245462523697,"usage":100.0}},"reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":7,"pass":0,"report":{"ran":20000,"rounds":179,"score":{"value":6.719521993978934,"unit":"GB/s"},"peaks":{"die_voltage":1.2260095451962043,"hottest_core":56.64118722518271,"package_power":93.39104318255217,"reached_clock":4451.038241110305,"room":21.221245462523697,"usage":100.0}}},{"kind":"pass-began","trial":7,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'89966B2506AF1A76E76589F0E544FF6C8BBC15F5181B295282982A50AE7917A7');
INSERT INTO "journal" VALUES(2,19,1781989977500,1795799250519,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57687,"score":{"value":481.6636531691891,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183378864981682,"hottest_core":63.37908521442629,"package_power":124.23124243891105,"reached_clock":4452.019379942134,"room":21.254968161056066,"usage":100.0}},"reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":7,"pass":1,"report":{"ran":90000,"rounds":57687,"score":{"value":481.6636531691891,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183378864981682,"hottest_core":63.37908521442629,"package_power":124.23124243891105,"reached_clock":4452.019379942134,"room":21.254968161056066,"usage":100.0}}},{"kind":"trial-ended","trial":7,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.05543036525739109,"low":0.02692118953116603,"high":0.08393954098361615}},{"kind":"trial-began","trial":8,"stage":1,"rung":{"core_clock":"4500","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4450"}},{"kind":"about-to-apply","trial":8,"change":{"setting":"core_clock","from":"4450","to":"4500"}}]}',X'C34C7273637B629A98F74BFCED8EF67434B9DA9A8FFECE299D11CFDB547F3030');
INSERT INTO "journal" VALUES(2,20,1781989979000,1795799250520,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":8,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'1D383E325D5431041386AE0213706FC260F8942E7CADD78476FD3ABB3510339A');
INSERT INTO "journal" VALUES(2,21,1781989999000,1795799250561,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":180,"score":{"value":6.790519196115058,"unit":"GB/s"},"peaks":{"die_voltage":1.2264311446266203,"hottest_core":56.82290983784927,"package_power":94.89498452855094,"reached_clock":4501.757672408098,"room":21.2978024011077,"usage":100.0}},"reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":8,"pass":0,"report":{"ran":20000,"rounds":180,"score":{"value":6.790519196115058,"unit":"GB/s"},"peaks":{"die_voltage":1.2264311446266203,"hottest_core":56.82290983784927,"package_power":94.89498452855094,"reached_clock":4501.757672408098,"room":21.2978024011077,"usage":100.0}}},{"kind":"pass-began","trial":8,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'BD1086974086B1B956EC43B6BE98F4C375AEB26865DAF21E715DC539135BFC5E');
INSERT INTO "journal" VALUES(2,22,1781990089000,1795799250742,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58252,"score":{"value":485.786674710944,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2180753071234658,"hottest_core":63.747513314239804,"package_power":125.25175878318402,"reached_clock":4502.03723556361,"room":21.273780690779997,"usage":100.0}},"reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":8,"pass":1,"report":{"ran":90000,"rounds":58252,"score":{"value":485.786674710944,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2180753071234658,"hottest_core":63.747513314239804,"package_power":125.25175878318402,"reached_clock":4502.03723556361,"room":21.273780690779997,"usage":100.0}}},{"kind":"trial-ended","trial":8,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.0644648068291116,"low":0.035955631102886534,"high":0.09297398255533666}},{"kind":"trial-began","trial":9,"stage":1,"rung":{"core_clock":"4550","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4500"}},{"kind":"about-to-apply","trial":9,"change":{"setting":"core_clock","from":"4500","to":"4550"}}]}',X'27AE0E3B595D4138B40A246512735D2BDB0D36C1B1BA7ACCBA992CC9C32A9F83');
INSERT INTO "journal" VALUES(2,23,1781990090500,1795799250743,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":9,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'960D9D10DB681EAC6D1AAAF24351AE1E50FE50EDDD443941CB7B850BE674C49A');
INSERT INTO "journal" VALUES(2,24,1781990110500,1795799250784,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":182,"score":{"value":6.825579341214689,"unit":"GB/s"},"peaks":{"die_voltage":1.2259878548479741,"hottest_core":57.53518317440187,"package_power":95.62757381652916,"reached_clock":4551.192597033493,"room":21.278133344923805,"usage":100.0}},"reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":9,"pass":0,"report":{"ran":20000,"rounds":182,"score":{"value":6.825579341214689,"unit":"GB/s"},"peaks":{"die_voltage":1.2259878548479741,"hottest_core":57.53518317440187,"package_power":95.62757381652916,"reached_clock":4551.192597033493,"room":21.278133344923805,"usage":100.0}}},{"kind":"pass-began","trial":9,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'A587EA3185D2071772500FC9656AFD8DF8158A0519A526ABDA1623EDFCC0477E');
INSERT INTO "journal" VALUES(2,25,1781990200500,1795799250964,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58816,"score":{"value":490.5553756450121,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2172886732622297,"hottest_core":63.79469338011858,"package_power":126.50368162530374,"reached_clock":4551.400941676019,"room":21.284253332975346,"usage":100.0}},"reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":9,"pass":1,"report":{"ran":90000,"rounds":58816,"score":{"value":490.5553756450121,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2172886732622297,"hottest_core":63.79469338011858,"package_power":126.50368162530374,"reached_clock":4551.400941676019,"room":21.284253332975346,"usage":100.0}}},{"kind":"trial-ended","trial":9,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.07491407310762566,"low":0.04640489738140059,"high":0.10342324883385072}},{"kind":"trial-began","trial":10,"stage":1,"rung":{"core_clock":"4600","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4550"}},{"kind":"about-to-apply","trial":10,"change":{"setting":"core_clock","from":"4550","to":"4600"}}]}',X'5C909CFEAFFEBAB119B85A1E3C5732A1E535440DBC6FD7452EA24742F9388010');
INSERT INTO "journal" VALUES(2,26,1781990202000,1795799250966,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":10,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9804EB7CF6048603556173143D221202A1DBB320E7DE6D5613D72562D32F2DC6');
INSERT INTO "journal" VALUES(2,27,1781990222000,1795799251007,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":184,"score":{"value":6.923287131433772,"unit":"GB/s"},"peaks":{"die_voltage":1.226453965643902,"hottest_core":57.5214499180473,"package_power":96.22372832508633,"reached_clock":4601.302318824181,"room":21.35232882850812,"usage":100.0}},"reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":10,"pass":0,"report":{"ran":20000,"rounds":184,"score":{"value":6.923287131433772,"unit":"GB/s"},"peaks":{"die_voltage":1.226453965643902,"hottest_core":57.5214499180473,"package_power":96.22372832508633,"reached_clock":4601.302318824181,"room":21.35232882850812,"usage":100.0}}},{"kind":"pass-began","trial":10,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'FDD3A87015BA22FA7905406EBE0927E68D2508C0E1406CC95E127CA799EF5072');
INSERT INTO "journal" VALUES(2,28,1781990312000,1795799251187,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59378,"score":{"value":493.75050831855174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2173159063169088,"hottest_core":64.33061766861799,"package_power":128.33603731220214,"reached_clock":4601.674364293228,"room":21.308282410940745,"usage":100.0}},"reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":10,"pass":1,"report":{"ran":90000,"rounds":59378,"score":{"value":493.75050831855174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2173159063169088,"hottest_core":64.33061766861799,"package_power":128.33603731220214,"reached_clock":4601.674364293228,"room":21.308282410940745,"usage":100.0}}},{"kind":"trial-ended","trial":10,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.08191530731429975,"low":0.05340613158807468,"high":0.11042448304052481}},{"kind":"trial-began","trial":11,"stage":1,"rung":{"core_clock":"4650","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4600"}},{"kind":"about-to-apply","trial":11,"change":{"setting":"core_clock","from":"4600","to":"4650"}}]}',X'7F02EAC8B350DD8D4A0E3D341AF1AA1073DCD52264803AA17F28D5B115A58E39');
INSERT INTO "journal" VALUES(2,29,1781990313500,1795799251190,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":11,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'1B1F87AD13F2C088AF0AD9F62ED9CD9ACACD8C1924319660179B52D084FA3EEF');
INSERT INTO "journal" VALUES(2,30,1781990333500,1795799251243,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":186,"score":{"value":6.967812379541443,"unit":"GB/s"},"peaks":{"die_voltage":1.2254215891796145,"hottest_core":57.96468269309024,"package_power":97.03927256861064,"reached_clock":4651.548759598761,"room":21.254416369264572,"usage":100.0}},"reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":11,"pass":0,"report":{"ran":20000,"rounds":186,"score":{"value":6.967812379541443,"unit":"GB/s"},"peaks":{"die_voltage":1.2254215891796145,"hottest_core":57.96468269309024,"package_power":97.03927256861064,"reached_clock":4651.548759598761,"room":21.254416369264572,"usage":100.0}}},{"kind":"pass-began","trial":11,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'4C10CABCEB60891F40AB09D0167D796FAEF29E835328EE2D848A48ABCE0F922C');
INSERT INTO "journal" VALUES(2,31,1781990423500,1795799251410,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59939,"score":{"value":501.49321125218074,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2169874057792123,"hottest_core":64.7839157527527,"package_power":129.16689927625958,"reached_clock":4651.65957708346,"room":21.348615892642872,"usage":100.0}},"reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":11,"pass":1,"report":{"ran":90000,"rounds":59939,"score":{"value":501.49321125218074,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2169874057792123,"hottest_core":64.7839157527527,"package_power":129.16689927625958,"reached_clock":4651.65957708346,"room":21.348615892642872,"usage":100.0}}},{"kind":"trial-ended","trial":11,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09888126214927895,"low":0.07037208642305388,"high":0.127390437875504}},{"kind":"trial-began","trial":12,"stage":1,"rung":{"core_clock":"4700","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4650"}},{"kind":"about-to-apply","trial":12,"change":{"setting":"core_clock","from":"4650","to":"4700"}}]}',X'6FFF1D7EBF281745C3BB5A5D8408AD69EED2AE31C6DBD5FAC31FBC1F826CB26C');
INSERT INTO "journal" VALUES(2,32,1781990425000,1795799251411,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":12,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'4185B0F89CCC3D5BBEEC64F1FDA30D56DCCCE2866D3AC6F59D8C3AC02E3CF8E6');
INSERT INTO "journal" VALUES(2,33,1781990445000,1795799251453,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.042758566713057,"unit":"GB/s"},"peaks":{"die_voltage":1.2249629290609896,"hottest_core":58.110929171627184,"package_power":97.88860100148982,"reached_clock":4701.826949807673,"room":21.23389930451919,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":12,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.042758566713057,"unit":"GB/s"},"peaks":{"die_voltage":1.2249629290609896,"hottest_core":58.110929171627184,"package_power":97.88860100148982,"reached_clock":4701.826949807673,"room":21.23389930451919,"usage":100.0}}},{"kind":"pass-began","trial":12,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'9CB54041742C7713FF5AD83615512AA45094EDE50B69F3AB28FE08E074EFAB32');
INSERT INTO "journal" VALUES(2,34,1781990535000,1795799251634,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":504.73554303313637,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2163605525329197,"hottest_core":65.4356674979163,"package_power":131.03554982319625,"reached_clock":4702.309026926209,"room":21.2898560667572,"usage":100.0}},"reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":12,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":504.73554303313637,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2163605525329197,"hottest_core":65.4356674979163,"package_power":131.03554982319625,"reached_clock":4702.309026926209,"room":21.2898560667572,"usage":100.0}}},{"kind":"trial-ended","trial":12,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10598591991895634,"low":0.07747674419273128,"high":0.1344950956451814}},{"kind":"trial-began","trial":13,"stage":1,"rung":{"core_clock":"4750","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4700"}},{"kind":"about-to-apply","trial":13,"change":{"setting":"core_clock","from":"4700","to":"4750"}}]}',X'A7FDEA94AABFA7EE743BF6A26B8572C2D52A39BA482AD6AA662156DEA51430AC');
INSERT INTO "journal" VALUES(2,35,1781990536500,1795799251636,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":13,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'A6A87951F1BE1E0767F2587D6FEC2A0844E028FE0A1F6796499227FDF7201D86');
INSERT INTO "journal" VALUES(2,36,1781990556500,1795799251676,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":189,"score":{"value":7.076760150894534,"unit":"GB/s"},"peaks":{"die_voltage":1.2257816163943667,"hottest_core":58.7294535535269,"package_power":99.45761935197717,"reached_clock":4751.34719862372,"room":21.25993914780328,"usage":100.0}},"reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":13,"pass":0,"report":{"ran":20000,"rounds":189,"score":{"value":7.076760150894534,"unit":"GB/s"},"peaks":{"die_voltage":1.2257816163943667,"hottest_core":58.7294535535269,"package_power":99.45761935197717,"reached_clock":4751.34719862372,"room":21.25993914780328,"usage":100.0}}},{"kind":"pass-began","trial":13,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'69880432520E9EB1363435ABFD10C9132BC42DDE1C52B65B797D76F09DB4A8FB');
INSERT INTO "journal" VALUES(2,37,1781990646500,1795799251856,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":61056,"score":{"value":507.9024681578701,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2161948497160087,"hottest_core":65.65357118971262,"package_power":131.68598658227592,"reached_clock":4751.690119192374,"room":21.236972053055947,"usage":100.0}},"reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":13,"pass":1,"report":{"ran":90000,"rounds":61056,"score":{"value":507.9024681578701,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2161948497160087,"hottest_core":65.65357118971262,"package_power":131.68598658227592,"reached_clock":4751.690119192374,"room":21.236972053055947,"usage":100.0}}},{"kind":"trial-ended","trial":13,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.11292534521947095,"low":0.08441616949324589,"high":0.141434520945696}},{"kind":"trial-began","trial":14,"stage":1,"rung":{"core_clock":"4800","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4750"}},{"kind":"about-to-apply","trial":14,"change":{"setting":"core_clock","from":"4750","to":"4800"}}]}',X'218A76A69CD12FCC4D5AC46EC354DB7D7CBC1D6CE3FBA78BE085E5702800956A');
INSERT INTO "journal" VALUES(2,38,1781990648000,1795799251857,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":14,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'CFCFBDED0C1D931C631E4EF16FA8D3F91DEBAD456829D59C4DA6BB6FF3583C55');
INSERT INTO "journal" VALUES(2,39,1781990668000,1795799251899,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":191,"score":{"value":7.18817061124197,"unit":"GB/s"},"peaks":{"die_voltage":1.2251819098821675,"hottest_core":58.87446119366172,"package_power":99.94843819930976,"reached_clock":4801.50068504321,"room":21.253957542819705,"usage":100.0}},"reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-ended","trial":14,"pass":0,"report":{"ran":20000,"rounds":191,"score":{"value":7.18817061124197,"unit":"GB/s"},"peaks":{"die_voltage":1.2251819098821675,"hottest_core":58.87446119366172,"package_power":99.94843819930976,"reached_clock":4801.50068504321,"room":21.253957542819705,"usage":100.0}}},{"kind":"pass-began","trial":14,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'149085088ED7004CB9FBD0C608976B3D8DD28B11B42B3025497FAC8EE8187E38');
INSERT INTO "journal" VALUES(3,0,1795799251975,1795799251975,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"started","in_force":{},"ahead":0,"rules":1},"entries":[{"kind":"began","in_force":{}},{"kind":"stage-began","stage":0,"strategy":"baseline"},{"kind":"trial-began","trial":1,"stage":0,"rung":{"base_clock":"100","multiplier":"36"},"proof":"glance","reason":{"why":"baseline","nth":1,"of":1}},{"kind":"about-to-apply","trial":1,"change":{"setting":"multiplier","from":null,"to":"36"}},{"kind":"asked","trial":1,"question":{"question":"change","change":{"setting":"multiplier","from":null,"to":"36"}}}]}',X'5056C5558CDDB8657A2EFCA76BAED38794784002DC9AFB66D15F6E2B16E040E6');
INSERT INTO "journal" VALUES(3,1,1795799251975,1795799251976,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"change-made","reported":{},"started_anew":false},"entries":[{"kind":"operator","said":"done"},{"kind":"about-to-apply","trial":1,"change":{"setting":"base_clock","from":null,"to":"100"}},{"kind":"asked","trial":1,"question":{"question":"change","change":{"setting":"base_clock","from":null,"to":"100"}}}]}',X'15786F837120227B2CFEDD569791FF9EEF18ABAE179602E45847FAB838C1AA92');
INSERT INTO "journal" VALUES(3,2,1795799255938,1795799255938,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"change-made","reported":{},"started_anew":false},"entries":[{"kind":"operator","said":"done"},{"kind":"pass-began","trial":1,"pass":0,"order":{"load":"dense","length":2000,"threads":"all"}}]}',X'A0FF6CE4BFA88C574FE2AC028965BF8AC76CCFC5435BB83F3DB0B52195165742');
INSERT INTO "journal" VALUES(3,3,1795799258514,1795799258515,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":2320,"rounds":7,"score":{"value":24.82805338055995,"unit":"GFLOP/s"},"peaks":{"reported_clock":2499.998,"usage":100.0},"workload":{"kernel":"avx512","size":2000,"size_name":"unknowns","bytes":137304320,"round":2106}},"reported":{}},"entries":[{"kind":"pass-ended","trial":1,"pass":0,"report":{"ran":2320,"rounds":7,"score":{"value":24.82805338055995,"unit":"GFLOP/s"},"peaks":{"reported_clock":2499.998,"usage":100.0},"workload":{"kernel":"avx512","size":2000,"size_name":"unknowns","bytes":137304320,"round":2106}}},{"kind":"trial-ended","trial":1,"verdict":"held","incident":null,"tested":2320},{"kind":"stage-ended","stage":0,"end":{"because":"baseline-held"}},{"kind":"stage-began","stage":1,"strategy":"ascend"},{"kind":"trial-began","trial":2,"stage":1,"rung":{"base_clock":"100","multiplier":"36.5"},"proof":"glance","reason":{"why":"harder","setting":"multiplier","from":"36"}},{"kind":"about-to-apply","trial":2,"change":{"setting":"multiplier","from":"36","to":"36.5"}},{"kind":"asked","trial":2,"question":{"question":"change","change":{"setting":"multiplier","from":"36","to":"36.5"}}}]}',X'8FDEC1EFD77F6645B03BD81E0D8527ACFAF9796A72386C7B9268FDABCA25F57B');
CREATE TABLE marks (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    stage INTEGER NOT NULL,
    setting TEXT NOT NULL,
    rung TEXT NOT NULL,
    proof TEXT NOT NULL,
    withdrawn_in INTEGER,
    PRIMARY KEY (climb, trial, stage)
) WITHOUT ROWID;
INSERT INTO "marks" VALUES(1,18,1,'core_clock','{"core_clock":"4700","core_voltage":"1.250"}','quick',NULL);
INSERT INTO "marks" VALUES(1,24,2,'core_voltage','{"core_clock":"4700","core_voltage":"1.230"}','quick',NULL);
CREATE TABLE notes (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    entry INTEGER NOT NULL,
    trial INTEGER,
    text TEXT NOT NULL,
    PRIMARY KEY (climb, line, entry)
) WITHOUT ROWID;
CREATE TABLE passes (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    began INTEGER NOT NULL,
    ran INTEGER,
    rounds INTEGER, threads TEXT,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
INSERT INTO "passes" VALUES(1,1,0,'integer',1781989200000,20000,170,'all');
INSERT INTO "passes" VALUES(1,1,1,'dense',1781989220000,90000,54835,'all');
INSERT INTO "passes" VALUES(1,2,0,'integer',1781989310000,20000,170,'all');
INSERT INTO "passes" VALUES(1,2,1,'dense',1781989330000,90000,54835,'all');
INSERT INTO "passes" VALUES(1,3,0,'integer',1781989421500,20000,172,'all');
INSERT INTO "passes" VALUES(1,3,1,'dense',1781989441500,90000,55408,'all');
INSERT INTO "passes" VALUES(1,4,0,'integer',1781989533000,20000,173,'all');
INSERT INTO "passes" VALUES(1,4,1,'dense',1781989553000,90000,55980,'all');
INSERT INTO "passes" VALUES(1,5,0,'integer',1781989644500,20000,175,'all');
INSERT INTO "passes" VALUES(1,5,1,'dense',1781989664500,90000,56551,'all');
INSERT INTO "passes" VALUES(1,6,0,'integer',1781989756000,20000,177,'all');
INSERT INTO "passes" VALUES(1,6,1,'dense',1781989776000,90000,57120,'all');
INSERT INTO "passes" VALUES(1,7,0,'integer',1781989867500,20000,179,'all');
INSERT INTO "passes" VALUES(1,7,1,'dense',1781989887500,90000,57687,'all');
INSERT INTO "passes" VALUES(1,8,0,'integer',1781989979000,20000,180,'all');
INSERT INTO "passes" VALUES(1,8,1,'dense',1781989999000,90000,58252,'all');
INSERT INTO "passes" VALUES(1,9,0,'integer',1781990090500,20000,182,'all');
INSERT INTO "passes" VALUES(1,9,1,'dense',1781990110500,90000,58816,'all');
INSERT INTO "passes" VALUES(1,10,0,'integer',1781990202000,20000,184,'all');
INSERT INTO "passes" VALUES(1,10,1,'dense',1781990222000,90000,59378,'all');
INSERT INTO "passes" VALUES(1,11,0,'integer',1781990313500,20000,186,'all');
INSERT INTO "passes" VALUES(1,11,1,'dense',1781990333500,90000,59939,'all');
INSERT INTO "passes" VALUES(1,12,0,'integer',1781990425000,20000,187,'all');
INSERT INTO "passes" VALUES(1,12,1,'dense',1781990445000,90000,60498,'all');
INSERT INTO "passes" VALUES(1,13,0,'integer',1781990536500,20000,189,'all');
INSERT INTO "passes" VALUES(1,13,1,'dense',1781990556500,90000,61056,'all');
INSERT INTO "passes" VALUES(1,14,0,'integer',1781990648000,20000,191,'all');
INSERT INTO "passes" VALUES(1,14,1,'dense',1781990668000,90000,61612,'all');
INSERT INTO "passes" VALUES(1,15,0,'integer',1781990759500,20000,193,'all');
INSERT INTO "passes" VALUES(1,15,1,'dense',1781990779500,51500,35508,'all');
INSERT INTO "passes" VALUES(1,16,0,'integer',1781990832500,20000,191,'all');
INSERT INTO "passes" VALUES(1,16,1,'dense',1781990852500,7250,4941,'all');
INSERT INTO "passes" VALUES(1,17,0,'integer',1781990861250,20000,189,'all');
INSERT INTO "passes" VALUES(1,17,1,'dense',1781990881250,19000,12762,'all');
INSERT INTO "passes" VALUES(1,18,0,'integer',1781990901750,20000,187,'all');
INSERT INTO "passes" VALUES(1,18,1,'dense',1781990921750,90000,60498,'all');
INSERT INTO "passes" VALUES(1,19,0,'integer',1781991013250,20000,187,'all');
INSERT INTO "passes" VALUES(1,19,1,'dense',1781991033250,90000,60498,'all');
INSERT INTO "passes" VALUES(1,20,0,'integer',1781991124750,20000,187,'all');
INSERT INTO "passes" VALUES(1,20,1,'dense',1781991144750,90000,60498,'all');
INSERT INTO "passes" VALUES(1,21,0,'integer',1781991236250,20000,187,'all');
INSERT INTO "passes" VALUES(1,21,1,'dense',1781991256250,90000,60498,'all');
INSERT INTO "passes" VALUES(1,22,0,'integer',1781991347750,20000,187,'all');
INSERT INTO "passes" VALUES(1,22,1,'dense',1781991367750,90000,60498,'all');
INSERT INTO "passes" VALUES(1,23,0,'integer',1781991459250,20000,187,'all');
INSERT INTO "passes" VALUES(1,23,1,'dense',1781991479250,56500,37853,'all');
INSERT INTO "passes" VALUES(1,24,0,'integer',1781991537250,20000,187,'all');
INSERT INTO "passes" VALUES(1,24,1,'dense',1781991557250,90000,60498,'all');
INSERT INTO "passes" VALUES(2,1,0,'integer',1781989200000,20000,170,'all');
INSERT INTO "passes" VALUES(2,1,1,'dense',1781989220000,90000,54835,'all');
INSERT INTO "passes" VALUES(2,2,0,'integer',1781989310000,20000,170,'all');
INSERT INTO "passes" VALUES(2,2,1,'dense',1781989330000,90000,54835,'all');
INSERT INTO "passes" VALUES(2,3,0,'integer',1781989421500,20000,172,'all');
INSERT INTO "passes" VALUES(2,3,1,'dense',1781989441500,90000,55408,'all');
INSERT INTO "passes" VALUES(2,4,0,'integer',1781989533000,20000,173,'all');
INSERT INTO "passes" VALUES(2,4,1,'dense',1781989553000,90000,55980,'all');
INSERT INTO "passes" VALUES(2,5,0,'integer',1781989644500,20000,175,'all');
INSERT INTO "passes" VALUES(2,5,1,'dense',1781989664500,90000,56551,'all');
INSERT INTO "passes" VALUES(2,6,0,'integer',1781989756000,20000,177,'all');
INSERT INTO "passes" VALUES(2,6,1,'dense',1781989776000,90000,57120,'all');
INSERT INTO "passes" VALUES(2,7,0,'integer',1781989867500,20000,179,'all');
INSERT INTO "passes" VALUES(2,7,1,'dense',1781989887500,90000,57687,'all');
INSERT INTO "passes" VALUES(2,8,0,'integer',1781989979000,20000,180,'all');
INSERT INTO "passes" VALUES(2,8,1,'dense',1781989999000,90000,58252,'all');
INSERT INTO "passes" VALUES(2,9,0,'integer',1781990090500,20000,182,'all');
INSERT INTO "passes" VALUES(2,9,1,'dense',1781990110500,90000,58816,'all');
INSERT INTO "passes" VALUES(2,10,0,'integer',1781990202000,20000,184,'all');
INSERT INTO "passes" VALUES(2,10,1,'dense',1781990222000,90000,59378,'all');
INSERT INTO "passes" VALUES(2,11,0,'integer',1781990313500,20000,186,'all');
INSERT INTO "passes" VALUES(2,11,1,'dense',1781990333500,90000,59939,'all');
INSERT INTO "passes" VALUES(2,12,0,'integer',1781990425000,20000,187,'all');
INSERT INTO "passes" VALUES(2,12,1,'dense',1781990445000,90000,60498,'all');
INSERT INTO "passes" VALUES(2,13,0,'integer',1781990536500,20000,189,'all');
INSERT INTO "passes" VALUES(2,13,1,'dense',1781990556500,90000,61056,'all');
INSERT INTO "passes" VALUES(2,14,0,'integer',1781990648000,20000,191,'all');
INSERT INTO "passes" VALUES(2,14,1,'dense',1781990668000,NULL,NULL,'all');
INSERT INTO "passes" VALUES(3,1,0,'dense',1795799255938,2320,7,'all');
CREATE TABLE profiles (
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    rung TEXT NOT NULL,
    trial INTEGER,
    stage INTEGER,
    soaked INTEGER NOT NULL,
    PRIMARY KEY (climb, name)
) WITHOUT ROWID;
CREATE TABLE runs (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    until INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    body BLOB NOT NULL
, checksum BLOB);
CREATE TABLE scores (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    threads TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    merit REAL NOT NULL,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
INSERT INTO "scores" VALUES(1,1,0,'integer','all',6.37580149004452056971e+00,'GB/s',6.37580149004452056971e+00);
INSERT INTO "scores" VALUES(1,1,1,'dense','all',4.58753090137450556104e+02,'GFLOP/s',4.58753090137450556104e+02);
INSERT INTO "scores" VALUES(1,2,0,'integer','all',6.37720366434442809122e+00,'GB/s',6.37720366434442809122e+00);
INSERT INTO "scores" VALUES(1,2,1,'dense','all',4.56393470684379963129e+02,'GFLOP/s',4.56393470684379963129e+02);
INSERT INTO "scores" VALUES(1,3,0,'integer','all',6.4189613204186262152e+00,'GB/s',6.4189613204186262152e+00);
INSERT INTO "scores" VALUES(1,3,1,'dense','all',4.61885080855032242657e+02,'GFLOP/s',4.61885080855032242657e+02);
INSERT INTO "scores" VALUES(1,4,0,'integer','all',6.51334152284259282339e+00,'GB/s',6.51334152284259282339e+00);
INSERT INTO "scores" VALUES(1,4,1,'dense','all',4.68018006940223642688e+02,'GFLOP/s',4.68018006940223642688e+02);
INSERT INTO "scores" VALUES(1,5,0,'integer','all',6.55684286169107277686e+00,'GB/s',6.55684286169107277686e+00);
INSERT INTO "scores" VALUES(1,5,1,'dense','all',4.69242550487801736392e+02,'GFLOP/s',4.69242550487801736392e+02);
INSERT INTO "scores" VALUES(1,6,0,'integer','all',6.65722543922325105114e+00,'GB/s',6.65722543922325105114e+00);
INSERT INTO "scores" VALUES(1,6,1,'dense','all',4.76689968476324906973e+02,'GFLOP/s',4.76689968476324906973e+02);
INSERT INTO "scores" VALUES(1,7,0,'integer','all',6.74985691493226,'GB/s',6.74985691493226);
INSERT INTO "scores" VALUES(1,7,1,'dense','all',4.81837457747297719361e+02,'GFLOP/s',4.81837457747297719361e+02);
INSERT INTO "scores" VALUES(1,8,0,'integer','all',6.784007702891786451e+00,'GB/s',6.784007702891786451e+00);
INSERT INTO "scores" VALUES(1,8,1,'dense','all',4.8735903684051646678e+02,'GFLOP/s',4.8735903684051646678e+02);
INSERT INTO "scores" VALUES(1,9,0,'integer','all',6.84688334690813249494e+00,'GB/s',6.84688334690813249494e+00);
INSERT INTO "scores" VALUES(1,9,1,'dense','all',4.88275249051948605953e+02,'GFLOP/s',4.88275249051948605953e+02);
INSERT INTO "scores" VALUES(1,10,0,'integer','all',6.93291309230467778235e+00,'GB/s',6.93291309230467778235e+00);
INSERT INTO "scores" VALUES(1,10,1,'dense','all',4.95805269879180229982e+02,'GFLOP/s',4.95805269879180229982e+02);
INSERT INTO "scores" VALUES(1,11,0,'integer','all',6.96121890977085833185e+00,'GB/s',6.96121890977085833185e+00);
INSERT INTO "scores" VALUES(1,11,1,'dense','all',5.01414441006674394419e+02,'GFLOP/s',5.01414441006674394419e+02);
INSERT INTO "scores" VALUES(1,12,0,'integer','all',6.82061065747524786218e+00,'GB/s',6.82061065747524786218e+00);
INSERT INTO "scores" VALUES(1,12,1,'dense','all',5.05449660023980754889e+02,'GFLOP/s',5.05449660023980754889e+02);
INSERT INTO "scores" VALUES(1,13,0,'integer','all',7.12496057298717211381e+00,'GB/s',7.12496057298717211381e+00);
INSERT INTO "scores" VALUES(1,13,1,'dense','all',5.07389768884587226676e+02,'GFLOP/s',5.07389768884587226676e+02);
INSERT INTO "scores" VALUES(1,14,0,'integer','all',6.73605040372040342333e+00,'GB/s',6.73605040372040342333e+00);
INSERT INTO "scores" VALUES(1,14,1,'dense','all',5.13671975979342846588e+02,'GFLOP/s',5.13671975979342846588e+02);
INSERT INTO "scores" VALUES(1,15,0,'integer','all',7.24337200412230775015e+00,'GB/s',7.24337200412230775015e+00);
INSERT INTO "scores" VALUES(1,16,0,'integer','all',7.17400140180046,'GB/s',7.17400140180046);
INSERT INTO "scores" VALUES(1,17,0,'integer','all',7.11788341451573458584e+00,'GB/s',7.11788341451573458584e+00);
INSERT INTO "scores" VALUES(1,18,0,'integer','all',7.02078377540534592782e+00,'GB/s',7.02078377540534592782e+00);
INSERT INTO "scores" VALUES(1,18,1,'dense','all',5.0638512628036426123e+02,'GFLOP/s',5.0638512628036426123e+02);
INSERT INTO "scores" VALUES(1,19,0,'integer','all',7.01524841542214172562e+00,'GB/s',7.01524841542214172562e+00);
INSERT INTO "scores" VALUES(1,19,1,'dense','all',5.03809856271367038959e+02,'GFLOP/s',5.03809856271367038959e+02);
INSERT INTO "scores" VALUES(1,20,0,'integer','all',7.03827843140855868853e+00,'GB/s',7.03827843140855868853e+00);
INSERT INTO "scores" VALUES(1,20,1,'dense','all',5.03342260263852722332e+02,'GFLOP/s',5.03342260263852722332e+02);
INSERT INTO "scores" VALUES(1,21,0,'integer','all',7.07859708637106166406e+00,'GB/s',7.07859708637106166406e+00);
INSERT INTO "scores" VALUES(1,21,1,'dense','all',5.05309165547671796043e+02,'GFLOP/s',5.05309165547671796043e+02);
INSERT INTO "scores" VALUES(1,22,0,'integer','all',7.01419635059296187051e+00,'GB/s',7.01419635059296187051e+00);
INSERT INTO "scores" VALUES(1,22,1,'dense','all',5.02866926415864554664e+02,'GFLOP/s',5.02866926415864554664e+02);
INSERT INTO "scores" VALUES(1,23,0,'integer','all',7.01727157192340733615e+00,'GB/s',7.01727157192340733615e+00);
INSERT INTO "scores" VALUES(1,24,0,'integer','all',7.03154369194708639412e+00,'GB/s',7.03154369194708639412e+00);
INSERT INTO "scores" VALUES(1,24,1,'dense','all',5.01851486184141663219e+02,'GFLOP/s',5.01851486184141663219e+02);
INSERT INTO "scores" VALUES(2,1,0,'integer','all',6.39861034208718315596e+00,'GB/s',6.39861034208718315596e+00);
INSERT INTO "scores" VALUES(2,1,1,'dense','all',4.56958253582285578876e+02,'GFLOP/s',4.56958253582285578876e+02);
INSERT INTO "scores" VALUES(2,2,0,'integer','all',6.39206409352195592532e+00,'GB/s',6.39206409352195592532e+00);
INSERT INTO "scores" VALUES(2,2,1,'dense','all',4.55775867065691613804e+02,'GFLOP/s',4.55775867065691613804e+02);
INSERT INTO "scores" VALUES(2,3,0,'integer','all',6.45216910678516342159e+00,'GB/s',6.45216910678516342159e+00);
INSERT INTO "scores" VALUES(2,3,1,'dense','all',461.158572577245,'GFLOP/s',461.158572577245);
INSERT INTO "scores" VALUES(2,4,0,'integer','all',6.52389444711357668893e+00,'GB/s',6.52389444711357668893e+00);
INSERT INTO "scores" VALUES(2,4,1,'dense','all',4.63381580124159711412e+02,'GFLOP/s',4.63381580124159711412e+02);
INSERT INTO "scores" VALUES(2,5,0,'integer','all',6.57861511825825662214e+00,'GB/s',6.57861511825825662214e+00);
INSERT INTO "scores" VALUES(2,5,1,'dense','all',4.71752612251497168913e+02,'GFLOP/s',4.71752612251497168913e+02);
INSERT INTO "scores" VALUES(2,6,0,'integer','all',6.61837122381982911889e+00,'GB/s',6.61837122381982911889e+00);
INSERT INTO "scores" VALUES(2,6,1,'dense','all',4.76769814179148113467e+02,'GFLOP/s',4.76769814179148113467e+02);
INSERT INTO "scores" VALUES(2,7,0,'integer','all',6.7195219939789341268e+00,'GB/s',6.7195219939789341268e+00);
INSERT INTO "scores" VALUES(2,7,1,'dense','all',4.8166365316918910368e+02,'GFLOP/s',4.8166365316918910368e+02);
INSERT INTO "scores" VALUES(2,8,0,'integer','all',6.79051919611505816476e+00,'GB/s',6.79051919611505816476e+00);
INSERT INTO "scores" VALUES(2,8,1,'dense','all',485.786674710944,'GFLOP/s',485.786674710944);
INSERT INTO "scores" VALUES(2,9,0,'integer','all',6.82557934121468878885e+00,'GB/s',6.82557934121468878885e+00);
INSERT INTO "scores" VALUES(2,9,1,'dense','all',4.90555375645012077274e+02,'GFLOP/s',4.90555375645012077274e+02);
INSERT INTO "scores" VALUES(2,10,0,'integer','all',6.92328713143377161287e+00,'GB/s',6.92328713143377161287e+00);
INSERT INTO "scores" VALUES(2,10,1,'dense','all',4.93750508318551737827e+02,'GFLOP/s',4.93750508318551737827e+02);
INSERT INTO "scores" VALUES(2,11,0,'integer','all',6.96781237954144305746e+00,'GB/s',6.96781237954144305746e+00);
INSERT INTO "scores" VALUES(2,11,1,'dense','all',5.01493211252180742581e+02,'GFLOP/s',5.01493211252180742581e+02);
INSERT INTO "scores" VALUES(2,12,0,'integer','all',7.04275856671305700018e+00,'GB/s',7.04275856671305700018e+00);
INSERT INTO "scores" VALUES(2,12,1,'dense','all',5.04735543033136366394e+02,'GFLOP/s',5.04735543033136366394e+02);
INSERT INTO "scores" VALUES(2,13,0,'integer','all',7.07676015089453436246e+00,'GB/s',7.07676015089453436246e+00);
INSERT INTO "scores" VALUES(2,13,1,'dense','all',5.07902468157870089259e+02,'GFLOP/s',5.07902468157870089259e+02);
INSERT INTO "scores" VALUES(2,14,0,'integer','all',7.18817061124197,'GB/s',7.18817061124197);
INSERT INTO "scores" VALUES(3,1,0,'dense','all',2.48280533805599503685e+01,'GFLOP/s',2.48280533805599503685e+01);
CREATE TABLE seals (
    climb INTEGER PRIMARY KEY,
    digest BLOB NOT NULL
, tables BLOB);
INSERT INTO "seals" VALUES(1,X'1CAC4725B4838919A58E2AAD10AD4F3229FA98723F594D237FA74F71F338B876',X'F0A43A276365E617B2C0108A4FF9F963');
CREATE TABLE tail (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    value REAL NOT NULL, checksum BLOB,
    PRIMARY KEY (climb, at, sensor)
) WITHOUT ROWID;
CREATE TABLE trials (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    stage INTEGER NOT NULL,
    rung TEXT NOT NULL,
    proof TEXT NOT NULL,
    began INTEGER NOT NULL,
    verdict TEXT,
    incident TEXT,
    tested INTEGER,
    PRIMARY KEY (climb, trial)
) WITHOUT ROWID;
INSERT INTO "trials" VALUES(1,1,0,'{"core_clock":"4200","core_voltage":"1.250"}','quick',1781989200000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,2,0,'{"core_clock":"4200","core_voltage":"1.250"}','quick',1781989310000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,3,1,'{"core_clock":"4250","core_voltage":"1.250"}','quick',1781989420000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,4,1,'{"core_clock":"4300","core_voltage":"1.250"}','quick',1781989531500,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,5,1,'{"core_clock":"4350","core_voltage":"1.250"}','quick',1781989643000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,6,1,'{"core_clock":"4400","core_voltage":"1.250"}','quick',1781989754500,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,7,1,'{"core_clock":"4450","core_voltage":"1.250"}','quick',1781989866000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,8,1,'{"core_clock":"4500","core_voltage":"1.250"}','quick',1781989977500,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,9,1,'{"core_clock":"4550","core_voltage":"1.250"}','quick',1781990089000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,10,1,'{"core_clock":"4600","core_voltage":"1.250"}','quick',1781990200500,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,11,1,'{"core_clock":"4650","core_voltage":"1.250"}','quick',1781990312000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,12,1,'{"core_clock":"4700","core_voltage":"1.250"}','quick',1781990423500,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,13,1,'{"core_clock":"4750","core_voltage":"1.250"}','quick',1781990535000,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,14,1,'{"core_clock":"4800","core_voltage":"1.250"}','quick',1781990646500,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,15,1,'{"core_clock":"4850","core_voltage":"1.250"}','quick',1781990758000,'fell','wrong-result',71500);
INSERT INTO "trials" VALUES(1,16,1,'{"core_clock":"4800","core_voltage":"1.250"}','quick',1781990831000,'fell','wrong-result',27250);
INSERT INTO "trials" VALUES(1,17,1,'{"core_clock":"4750","core_voltage":"1.250"}','quick',1781990859750,'slipped','corrected-error',39000);
INSERT INTO "trials" VALUES(1,18,1,'{"core_clock":"4700","core_voltage":"1.250"}','quick',1781990900250,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,19,2,'{"core_clock":"4700","core_voltage":"1.245"}','quick',1781991011750,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,20,2,'{"core_clock":"4700","core_voltage":"1.240"}','quick',1781991123250,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,21,2,'{"core_clock":"4700","core_voltage":"1.235"}','quick',1781991234750,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,22,2,'{"core_clock":"4700","core_voltage":"1.230"}','quick',1781991346250,'held',NULL,110000);
INSERT INTO "trials" VALUES(1,23,2,'{"core_clock":"4700","core_voltage":"1.225"}','quick',1781991457750,'slipped','corrected-error',76500);
INSERT INTO "trials" VALUES(1,24,2,'{"core_clock":"4700","core_voltage":"1.230"}','quick',1781991535750,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,1,0,'{"core_clock":"4200","core_voltage":"1.250"}','quick',1781989200000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,2,0,'{"core_clock":"4200","core_voltage":"1.250"}','quick',1781989310000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,3,1,'{"core_clock":"4250","core_voltage":"1.250"}','quick',1781989420000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,4,1,'{"core_clock":"4300","core_voltage":"1.250"}','quick',1781989531500,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,5,1,'{"core_clock":"4350","core_voltage":"1.250"}','quick',1781989643000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,6,1,'{"core_clock":"4400","core_voltage":"1.250"}','quick',1781989754500,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,7,1,'{"core_clock":"4450","core_voltage":"1.250"}','quick',1781989866000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,8,1,'{"core_clock":"4500","core_voltage":"1.250"}','quick',1781989977500,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,9,1,'{"core_clock":"4550","core_voltage":"1.250"}','quick',1781990089000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,10,1,'{"core_clock":"4600","core_voltage":"1.250"}','quick',1781990200500,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,11,1,'{"core_clock":"4650","core_voltage":"1.250"}','quick',1781990312000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,12,1,'{"core_clock":"4700","core_voltage":"1.250"}','quick',1781990423500,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,13,1,'{"core_clock":"4750","core_voltage":"1.250"}','quick',1781990535000,'held',NULL,110000);
INSERT INTO "trials" VALUES(2,14,1,'{"core_clock":"4800","core_voltage":"1.250"}','quick',1781990646500,NULL,NULL,NULL);
INSERT INTO "trials" VALUES(3,1,0,'{"base_clock":"100","multiplier":"36"}','glance',1795799251975,'held',NULL,2320);
INSERT INTO "trials" VALUES(3,2,1,'{"base_clock":"100","multiplier":"36.5"}','glance',1795799258514,NULL,NULL,NULL);
CREATE INDEX runs_of_climb ON runs (climb, at);
COMMIT;
