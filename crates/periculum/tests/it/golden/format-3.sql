PRAGMA user_version = 3;
BEGIN TRANSACTION;
CREATE TABLE armed (
    rig TEXT PRIMARY KEY,
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    starting INTEGER NOT NULL
) WITHOUT ROWID;
CREATE TABLE attached (
    climb INTEGER NOT NULL REFERENCES climbs,
    sensor TEXT NOT NULL,
    label TEXT NOT NULL,
    unit TEXT NOT NULL,
    decimals INTEGER NOT NULL,
    source TEXT NOT NULL,
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
);
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
',1795791699655);
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
',1795791700165);
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
',1795791703171);
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
);
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
INSERT INTO "journal" VALUES(1,0,1781989200000,1795791699656,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"started","in_force":{"core_clock":"4200","core_voltage":"1.250"},"ahead":0},"entries":[{"kind":"began","in_force":{"core_clock":"4200","core_voltage":"1.250"}},{"kind":"stage-began","stage":0,"strategy":"baseline"},{"kind":"trial-began","trial":1,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":1,"of":2}},{"kind":"pass-began","trial":1,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'BF3CBA7E9ECBFE09FA747E30743ADD1F0EF553A354C72DC7A81BD8BD708A855D');
INSERT INTO "journal" VALUES(1,1,1781989220000,1795791699660,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.375801490044521,"unit":"GB/s"},"peaks":{"die_voltage":1.227877451453149,"hottest_core":43.658607471305515,"package_power":87.13286596958552,"reached_clock":4201.142049736524,"room":21.258131453213622,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":1,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.375801490044521,"unit":"GB/s"},"peaks":{"die_voltage":1.227877451453149,"hottest_core":43.658607471305515,"package_power":87.13286596958552,"reached_clock":4201.142049736524,"room":21.258131453213622,"usage":100.0}}},{"kind":"pass-began","trial":1,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'1E4117D09D2D51BC6AEB0D72040E0FE5B1BC9C76A13C16807295347BDBDFA17A');
INSERT INTO "journal" VALUES(1,2,1781989310000,1795791699677,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":458.75309013745056,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2205953618327887,"hottest_core":58.02177673354298,"package_power":117.46493709596456,"reached_clock":4202.112426945149,"room":21.21608919040487,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":1,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":458.75309013745056,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2205953618327887,"hottest_core":58.02177673354298,"package_power":117.46493709596456,"reached_clock":4202.112426945149,"room":21.21608919040487,"usage":100.0}}},{"kind":"trial-ended","trial":1,"verdict":"held","incident":null,"tested":110000},{"kind":"trial-began","trial":2,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":2,"of":2}},{"kind":"pass-began","trial":2,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'94BBD1826E06ED89F9ECB9AD83BA033F2CB1B80959827C03D961C6E800B4CE37');
INSERT INTO "journal" VALUES(1,3,1781989330000,1795791699681,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.377203664344428,"unit":"GB/s"},"peaks":{"die_voltage":1.2278801403708381,"hottest_core":55.194685344266425,"package_power":88.99336997318713,"reached_clock":4200.991854339953,"room":21.239086932426805,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":2,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.377203664344428,"unit":"GB/s"},"peaks":{"die_voltage":1.2278801403708381,"hottest_core":55.194685344266425,"package_power":88.99336997318713,"reached_clock":4200.991854339953,"room":21.239086932426805,"usage":100.0}}},{"kind":"pass-began","trial":2,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'073E5AA5370EFD3D8F9503810EE0AC27FE1D44D4549C29DF3DF8119BBC2DB45D');
INSERT INTO "journal" VALUES(1,4,1781989420000,1795791699704,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":456.39347068437996,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2206398802180132,"hottest_core":60.49444715041318,"package_power":118.55992866757161,"reached_clock":4202.096616612411,"room":21.24503137482461,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":2,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":456.39347068437996,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2206398802180132,"hottest_core":60.49444715041318,"package_power":118.55992866757161,"reached_clock":4202.096616612411,"room":21.24503137482461,"usage":100.0}}},{"kind":"trial-ended","trial":2,"verdict":"held","incident":null,"tested":110000},{"kind":"stage-ended","stage":0,"end":{"because":"baseline-held"}},{"kind":"stage-began","stage":1,"strategy":"ascend"},{"kind":"trial-began","trial":3,"stage":1,"rung":{"core_clock":"4250","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4200"}},{"kind":"about-to-apply","trial":3,"change":{"setting":"core_clock","from":"4200","to":"4250"}}]}',X'246B3932C5C0FD5359C73135BEF11992CBDD90C6C570960864761914BEF2E6D5');
INSERT INTO "journal" VALUES(1,5,1781989421500,1795791699705,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":3,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9BFC970FEEC3BFDB132BE2DE72AD9F34673425108E650BD81752963695305674');
INSERT INTO "journal" VALUES(1,6,1781989441500,1795791699708,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":172,"score":{"value":6.418961320418626,"unit":"GB/s"},"peaks":{"die_voltage":1.2266002734837598,"hottest_core":54.536788798281634,"package_power":89.88055576963106,"reached_clock":4251.635831139829,"room":21.229639495981562,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":3,"pass":0,"report":{"ran":20000,"rounds":172,"score":{"value":6.418961320418626,"unit":"GB/s"},"peaks":{"die_voltage":1.2266002734837598,"hottest_core":54.536788798281634,"package_power":89.88055576963106,"reached_clock":4251.635831139829,"room":21.229639495981562,"usage":100.0}}},{"kind":"pass-began","trial":3,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'B0A340152F38D7EAD2F4B3AA4AC895F6BF42DE4707424E114D26D68FE14F9BC7');
INSERT INTO "journal" VALUES(1,7,1781989531500,1795791699726,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55408,"score":{"value":461.88508085503224,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2195883091470772,"hottest_core":61.27771083706118,"package_power":119.16902383335412,"reached_clock":4251.696217890028,"room":21.220942780626764,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":3,"pass":1,"report":{"ran":90000,"rounds":55408,"score":{"value":461.88508085503224,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2195883091470772,"hottest_core":61.27771083706118,"package_power":119.16902383335412,"reached_clock":4251.696217890028,"room":21.220942780626764,"usage":100.0}}},{"kind":"trial-ended","trial":3,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.009423191057495561,"low":-0.04732091967212089,"high":0.06616730178711201}},{"kind":"trial-began","trial":4,"stage":1,"rung":{"core_clock":"4300","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4250"}},{"kind":"about-to-apply","trial":4,"change":{"setting":"core_clock","from":"4250","to":"4300"}}]}',X'4D568EC7E0B9A545E019E3599B1ADC649CBCDE875F240E6DF3C4AFD49F2DD4EB');
INSERT INTO "journal" VALUES(1,8,1781989533000,1795791699727,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":4,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'849486DF930923CAE554D37147715AA0B9F42BDEB5EECB7BECFA5EA5659B5C2F');
INSERT INTO "journal" VALUES(1,9,1781989553000,1795791699731,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":173,"score":{"value":6.513341522842593,"unit":"GB/s"},"peaks":{"die_voltage":1.2275515910530042,"hottest_core":55.371180446118075,"package_power":90.56975068855368,"reached_clock":4301.172759128729,"room":21.16235647557408,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":4,"pass":0,"report":{"ran":20000,"rounds":173,"score":{"value":6.513341522842593,"unit":"GB/s"},"peaks":{"die_voltage":1.2275515910530042,"hottest_core":55.371180446118075,"package_power":90.56975068855368,"reached_clock":4301.172759128729,"room":21.16235647557408,"usage":100.0}}},{"kind":"pass-began","trial":4,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'0F087D1A6FFF26FB3B92E9D636A783981672505FA3636CB2DE8BD6732D3704D4');
INSERT INTO "journal" VALUES(1,10,1781989643000,1795791699753,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55980,"score":{"value":468.01800694022364,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201529956021238,"hottest_core":62.25039333539358,"package_power":121.2315466197544,"reached_clock":4302.263441696959,"room":21.280629647956065,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":4,"pass":1,"report":{"ran":90000,"rounds":55980,"score":{"value":468.01800694022364,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201529956021238,"hottest_core":62.25039333539358,"package_power":121.2315466197544,"reached_clock":4302.263441696959,"room":21.280629647956065,"usage":100.0}}},{"kind":"trial-ended","trial":4,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.022826347115217693,"low":-0.03391776361439876,"high":0.07957045784483414}},{"kind":"trial-began","trial":5,"stage":1,"rung":{"core_clock":"4350","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4300"}},{"kind":"about-to-apply","trial":5,"change":{"setting":"core_clock","from":"4300","to":"4350"}}]}',X'AD4ECDA6C1003EC196564DF3EAAB7802064E895BDF900837896D38CC69B97699');
INSERT INTO "journal" VALUES(1,11,1781989644500,1795791699754,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":5,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'44BED5AD1FDEF43C647E8EBAE2CF6F506FE208A487FB4052D46966F6332600E5');
INSERT INTO "journal" VALUES(1,12,1781989664500,1795791699757,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":175,"score":{"value":6.556842861691073,"unit":"GB/s"},"peaks":{"die_voltage":1.2275692685832802,"hottest_core":55.98367511870654,"package_power":91.82206866853933,"reached_clock":4350.983194018921,"room":21.176119310974663,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":5,"pass":0,"report":{"ran":20000,"rounds":175,"score":{"value":6.556842861691073,"unit":"GB/s"},"peaks":{"die_voltage":1.2275692685832802,"hottest_core":55.98367511870654,"package_power":91.82206866853933,"reached_clock":4350.983194018921,"room":21.176119310974663,"usage":100.0}}},{"kind":"pass-began","trial":5,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'13B92156D28C33D65DE0170406B3C19892153CEB6C33A2DA83C7AE3DE735E02F');
INSERT INTO "journal" VALUES(1,13,1781989754500,1795791699775,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":56551,"score":{"value":469.24255048780174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197286732198582,"hottest_core":62.606166066258275,"package_power":122.623241363437,"reached_clock":4352.007299655889,"room":21.25954585802292,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":5,"pass":1,"report":{"ran":90000,"rounds":56551,"score":{"value":469.24255048780174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197286732198582,"hottest_core":62.606166066258275,"package_power":122.623241363437,"reached_clock":4352.007299655889,"room":21.25954585802292,"usage":100.0}}},{"kind":"trial-ended","trial":5,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.025502516375971895,"low":-0.031241594353644556,"high":0.08224662710558835}},{"kind":"trial-began","trial":6,"stage":1,"rung":{"core_clock":"4400","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4350"}},{"kind":"about-to-apply","trial":6,"change":{"setting":"core_clock","from":"4350","to":"4400"}}]}',X'B67F2C141B19ACA1B9840F94538F1AAD1DC3E5F532514F995F9A75784CD7382F');
INSERT INTO "journal" VALUES(1,14,1781989756000,1795791699776,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":6,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'3D10A186A72E931B486E5CC443B30574884C6056B03DDD9834FAFA979CD29512');
INSERT INTO "journal" VALUES(1,15,1781989776000,1795791699784,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":177,"score":{"value":6.657225439223251,"unit":"GB/s"},"peaks":{"die_voltage":1.2266605352774564,"hottest_core":56.43234138938782,"package_power":92.29603246184543,"reached_clock":4401.449264144766,"room":21.117891556107097,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":6,"pass":0,"report":{"ran":20000,"rounds":177,"score":{"value":6.657225439223251,"unit":"GB/s"},"peaks":{"die_voltage":1.2266605352774564,"hottest_core":56.43234138938782,"package_power":92.29603246184543,"reached_clock":4401.449264144766,"room":21.117891556107097,"usage":100.0}}},{"kind":"pass-began","trial":6,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'260F4C74B2E7BBC5BF4C4D09378948DDF4C873020360ABDAE673F2CEF50337CD');
INSERT INTO "journal" VALUES(1,16,1781989866000,1795791699802,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57120,"score":{"value":476.6899684763249,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2199708724875158,"hottest_core":62.55688306023694,"package_power":123.433766825716,"reached_clock":4401.994168240153,"room":21.25322091926314,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":6,"pass":1,"report":{"ran":90000,"rounds":57120,"score":{"value":476.6899684763249,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2199708724875158,"hottest_core":62.55688306023694,"package_power":123.433766825716,"reached_clock":4401.994168240153,"room":21.25322091926314,"usage":100.0}}},{"kind":"trial-ended","trial":6,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.04177841863546372,"low":-0.01496569209415273,"high":0.09852252936508017}},{"kind":"trial-began","trial":7,"stage":1,"rung":{"core_clock":"4450","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4400"}},{"kind":"about-to-apply","trial":7,"change":{"setting":"core_clock","from":"4400","to":"4450"}}]}',X'D096D971F28C7443581DD7DCE553C90BDCE5AC4E8BDA7D74B3FBDB6562F017CD');
INSERT INTO "journal" VALUES(1,17,1781989867500,1795791699803,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":7,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'8F0B03179A081F4ED69AE1853AB5193905EB4C218749BBBEA83311B1B07FCD47');
INSERT INTO "journal" VALUES(1,18,1781989887500,1795791699806,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":179,"score":{"value":6.74985691493226,"unit":"GB/s"},"peaks":{"die_voltage":1.2260636414915527,"hottest_core":56.66279735132953,"package_power":93.86945741326896,"reached_clock":4451.546848068525,"room":21.30979279189104,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":7,"pass":0,"report":{"ran":20000,"rounds":179,"score":{"value":6.74985691493226,"unit":"GB/s"},"peaks":{"die_voltage":1.2260636414915527,"hottest_core":56.66279735132953,"package_power":93.86945741326896,"reached_clock":4451.546848068525,"room":21.30979279189104,"usage":100.0}}},{"kind":"pass-began","trial":7,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'186DA729B0F84D4767B68F3A0268FC4C8885AA1F09C59F6CC0D79B8D10339E3A');
INSERT INTO "journal" VALUES(1,19,1781989977500,1795791699825,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57687,"score":{"value":481.8374577472977,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183740271873327,"hottest_core":63.08325760593556,"package_power":124.04344508679073,"reached_clock":4452.468813842876,"room":21.275497899619264,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":7,"pass":1,"report":{"ran":90000,"rounds":57687,"score":{"value":481.8374577472977,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183740271873327,"hottest_core":63.08325760593556,"package_power":124.04344508679073,"reached_clock":4452.468813842876,"room":21.275497899619264,"usage":100.0}}},{"kind":"trial-ended","trial":7,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.05302795940049765,"low":-0.0037161513291188025,"high":0.1097720701301141}},{"kind":"trial-began","trial":8,"stage":1,"rung":{"core_clock":"4500","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4450"}},{"kind":"about-to-apply","trial":8,"change":{"setting":"core_clock","from":"4450","to":"4500"}}]}',X'B58BE34C5FF42AAC52F4471C92CE9D1658534D3C2845E9BC24904D599F8FF6D1');
INSERT INTO "journal" VALUES(1,20,1781989979000,1795791699826,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":8,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'3F4AF7D29B3EF28FD034F198F22740E94ED7029D1F8C7ADA8B65D1E7D7AD317F');
INSERT INTO "journal" VALUES(1,21,1781989999000,1795791699830,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":180,"score":{"value":6.7840077028917865,"unit":"GB/s"},"peaks":{"die_voltage":1.2258278286430744,"hottest_core":56.761285471880605,"package_power":93.9486745854057,"reached_clock":4502.087088918224,"room":21.191084710967026,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":8,"pass":0,"report":{"ran":20000,"rounds":180,"score":{"value":6.7840077028917865,"unit":"GB/s"},"peaks":{"die_voltage":1.2258278286430744,"hottest_core":56.761285471880605,"package_power":93.9486745854057,"reached_clock":4502.087088918224,"room":21.191084710967026,"usage":100.0}}},{"kind":"pass-began","trial":8,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'D5280BD2722FFCC15975363099876832B2B7EE6CD99186A7171AA9593EEC2AA1');
INSERT INTO "journal" VALUES(1,22,1781990089000,1795791699848,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58252,"score":{"value":487.35903684051647,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2179579230664168,"hottest_core":63.47439820570578,"package_power":125.46310507484237,"reached_clock":4502.188811275562,"room":21.33199739210781,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":8,"pass":1,"report":{"ran":90000,"rounds":58252,"score":{"value":487.35903684051647,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2179579230664168,"hottest_core":63.47439820570578,"package_power":125.46310507484237,"reached_clock":4502.188811275562,"room":21.33199739210781,"usage":100.0}}},{"kind":"trial-ended","trial":8,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.06509505188513787,"low":0.008350941155521416,"high":0.12183916261475432}},{"kind":"trial-began","trial":9,"stage":1,"rung":{"core_clock":"4550","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4500"}},{"kind":"about-to-apply","trial":9,"change":{"setting":"core_clock","from":"4500","to":"4550"}}]}',X'F66CE947CCBC67814BE54BC078A146C1EE2DD928463B6C9E34481B188BE953B7');
INSERT INTO "journal" VALUES(1,23,1781990090500,1795791699849,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":9,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'372D31F7A225668ABEE996E39DEC8483A54BEE7F23AB04603546265318000906');
INSERT INTO "journal" VALUES(1,24,1781990110500,1795791699852,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":182,"score":{"value":6.8468833469081325,"unit":"GB/s"},"peaks":{"die_voltage":1.2255929232127776,"hottest_core":57.08388877844761,"package_power":95.14698529571163,"reached_clock":4551.052764546056,"room":21.200813933791498,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":9,"pass":0,"report":{"ran":20000,"rounds":182,"score":{"value":6.8468833469081325,"unit":"GB/s"},"peaks":{"die_voltage":1.2255929232127776,"hottest_core":57.08388877844761,"package_power":95.14698529571163,"reached_clock":4551.052764546056,"room":21.200813933791498,"usage":100.0}}},{"kind":"pass-began","trial":9,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'966B8224DFD39271BC219C354B9A575B59FCF30BFBBA24902EC56044F172F712');
INSERT INTO "journal" VALUES(1,25,1781990200500,1795791699875,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58816,"score":{"value":488.2752490519486,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218281399520133,"hottest_core":63.93791730172372,"package_power":126.92683100492107,"reached_clock":4552.106304067348,"room":21.257700164230652,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":9,"pass":1,"report":{"ran":90000,"rounds":58816,"score":{"value":488.2752490519486,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218281399520133,"hottest_core":63.93791730172372,"package_power":126.92683100492107,"reached_clock":4552.106304067348,"room":21.257700164230652,"usage":100.0}}},{"kind":"trial-ended","trial":9,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.06709738080305305,"low":0.010353270073436602,"high":0.1238414915326695}},{"kind":"trial-began","trial":10,"stage":1,"rung":{"core_clock":"4600","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4550"}},{"kind":"about-to-apply","trial":10,"change":{"setting":"core_clock","from":"4550","to":"4600"}}]}',X'733221FC64BBB4C63422BC6D6DE6FEAF34B8BCD1188E7F71191AEE964E0C108A');
INSERT INTO "journal" VALUES(1,26,1781990202000,1795791699876,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":10,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'AC095732A71D86835E8606F32B070D2769094CA09C5A7AFC75FBB528F6903A40');
INSERT INTO "journal" VALUES(1,27,1781990222000,1795791699880,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":184,"score":{"value":6.932913092304678,"unit":"GB/s"},"peaks":{"die_voltage":1.2255621083748705,"hottest_core":57.78505891990172,"package_power":95.76054476943106,"reached_clock":4601.339728123542,"room":21.210049946481057,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":10,"pass":0,"report":{"ran":20000,"rounds":184,"score":{"value":6.932913092304678,"unit":"GB/s"},"peaks":{"die_voltage":1.2255621083748705,"hottest_core":57.78505891990172,"package_power":95.76054476943106,"reached_clock":4601.339728123542,"room":21.210049946481057,"usage":100.0}}},{"kind":"pass-began","trial":10,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'DDB2B0829CDC0E6D92BCDFA53ABEB656A838B97DADAC9AD87487402985148A9F');
INSERT INTO "journal" VALUES(1,28,1781990312000,1795791699901,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59378,"score":{"value":495.80526987918023,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2170239811881143,"hottest_core":64.26623159462441,"package_power":127.74534850271998,"reached_clock":4602.271122153295,"room":21.354897202265555,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":10,"pass":1,"report":{"ran":90000,"rounds":59378,"score":{"value":495.80526987918023,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2170239811881143,"hottest_core":64.26623159462441,"package_power":127.74534850271998,"reached_clock":4602.271122153295,"room":21.354897202265555,"usage":100.0}}},{"kind":"trial-ended","trial":10,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.08355380679993263,"low":0.026809696070316177,"high":0.14029791752954907}},{"kind":"trial-began","trial":11,"stage":1,"rung":{"core_clock":"4650","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4600"}},{"kind":"about-to-apply","trial":11,"change":{"setting":"core_clock","from":"4600","to":"4650"}}]}',X'643FDC462430EC7CC45EF4D3F1019CBEAE27130D6EF15358348B704B5829D809');
INSERT INTO "journal" VALUES(1,29,1781990313500,1795791699902,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":11,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'3ED17F54BED5D8CB0396A41A4B6FA5780EBB3B50FFB6A54321694714B851F07C');
INSERT INTO "journal" VALUES(1,30,1781990333500,1795791699910,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":186,"score":{"value":6.961218909770858,"unit":"GB/s"},"peaks":{"die_voltage":1.2253805130097677,"hottest_core":57.987289364022,"package_power":97.19944393356994,"reached_clock":4651.281769289345,"room":21.182583743298647,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":11,"pass":0,"report":{"ran":20000,"rounds":186,"score":{"value":6.961218909770858,"unit":"GB/s"},"peaks":{"die_voltage":1.2253805130097677,"hottest_core":57.987289364022,"package_power":97.19944393356994,"reached_clock":4651.281769289345,"room":21.182583743298647,"usage":100.0}}},{"kind":"pass-began","trial":11,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'8D5676E9E9E20D3708F3E597B603134E92711568E00213AF2FDB996D38875056');
INSERT INTO "journal" VALUES(1,31,1781990423500,1795791699927,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59939,"score":{"value":501.4144410066744,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2171174959829938,"hottest_core":64.72131965249581,"package_power":128.79580568094033,"reached_clock":4651.951123850939,"room":21.336728943094876,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":11,"pass":1,"report":{"ran":90000,"rounds":59939,"score":{"value":501.4144410066744,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2171174959829938,"hottest_core":64.72131965249581,"package_power":128.79580568094033,"reached_clock":4651.951123850939,"room":21.336728943094876,"usage":100.0}}},{"kind":"trial-ended","trial":11,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09581232662096961,"low":0.03906821589135316,"high":0.15255643735058605}},{"kind":"trial-began","trial":12,"stage":1,"rung":{"core_clock":"4700","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4650"}},{"kind":"about-to-apply","trial":12,"change":{"setting":"core_clock","from":"4650","to":"4700"}}]}',X'E83734A401DD8CAF7AE0F6DB13C761BB3A86BF316C5977BC1AF9D99196657D4C');
INSERT INTO "journal" VALUES(1,32,1781990425000,1795791699928,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":12,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'B7898FE5060926769AB6E26B65ADA100F83347D6D7B29A98A6A9F3DE2D4854BD');
INSERT INTO "journal" VALUES(1,33,1781990445000,1795791699932,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":6.820610657475248,"unit":"GB/s"},"peaks":{"die_voltage":1.2260246621609934,"hottest_core":58.11659791067106,"package_power":97.58009055271698,"reached_clock":4701.376667619912,"room":21.172086399235145,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":12,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":6.820610657475248,"unit":"GB/s"},"peaks":{"die_voltage":1.2260246621609934,"hottest_core":58.11659791067106,"package_power":97.58009055271698,"reached_clock":4701.376667619912,"room":21.172086399235145,"usage":100.0}}},{"kind":"pass-began","trial":12,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'F34824A8FD2E35E1776DD43D4FD3A0271B926D6FD6DE31C6CBAFE1DE914F2781');
INSERT INTO "journal" VALUES(1,34,1781990535000,1795791699955,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":505.44966002398075,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216437611361353,"hottest_core":65.5929029768402,"package_power":130.45259255855171,"reached_clock":4701.962679990111,"room":21.27631306016184,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":12,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":505.44966002398075,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216437611361353,"hottest_core":65.5929029768402,"package_power":130.45259255855171,"reached_clock":4701.962679990111,"room":21.27631306016184,"usage":100.0}}},{"kind":"trial-ended","trial":12,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10463106493034524,"low":0.04788695420072879,"high":0.16137517565996168}},{"kind":"trial-began","trial":13,"stage":1,"rung":{"core_clock":"4750","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4700"}},{"kind":"about-to-apply","trial":13,"change":{"setting":"core_clock","from":"4700","to":"4750"}}]}',X'099E2B7B00C356FF684AE58AD5171DBCA1B052120B8FB4079C347CB9FFCFAC59');
INSERT INTO "journal" VALUES(1,35,1781990536500,1795791699956,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":13,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'7AEC8678AEF2FF5DCA1965301EDA6F46E92682F23F6F2DEE663EABAAEF84A361');
INSERT INTO "journal" VALUES(1,36,1781990556500,1795791699959,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":189,"score":{"value":7.124960572987172,"unit":"GB/s"},"peaks":{"die_voltage":1.224527622329192,"hottest_core":58.5976500282412,"package_power":99.38113060816264,"reached_clock":4751.636477629575,"room":21.16095745462834,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":13,"pass":0,"report":{"ran":20000,"rounds":189,"score":{"value":7.124960572987172,"unit":"GB/s"},"peaks":{"die_voltage":1.224527622329192,"hottest_core":58.5976500282412,"package_power":99.38113060816264,"reached_clock":4751.636477629575,"room":21.16095745462834,"usage":100.0}}},{"kind":"pass-began","trial":13,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'C280650581DD31CB1CCA53FA386B1D0EA5D427B21D522664781918F927FD4312');
INSERT INTO "journal" VALUES(1,37,1781990646500,1795791699978,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":61056,"score":{"value":507.3897688845872,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216039743192874,"hottest_core":65.58324052148272,"package_power":132.18865408464046,"reached_clock":4751.82937580803,"room":21.25213190728582,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":13,"pass":1,"report":{"ran":90000,"rounds":61056,"score":{"value":507.3897688845872,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.216039743192874,"hottest_core":65.58324052148272,"package_power":132.18865408464046,"reached_clock":4751.82937580803,"room":21.25213190728582,"usage":100.0}}},{"kind":"trial-ended","trial":13,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10887106089091403,"low":0.05212695016129758,"high":0.16561517162053047}},{"kind":"trial-began","trial":14,"stage":1,"rung":{"core_clock":"4800","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4750"}},{"kind":"about-to-apply","trial":14,"change":{"setting":"core_clock","from":"4750","to":"4800"}}]}',X'92B1C5B9877CB51926ACE47A13797B4318CE9A9A2FDB3F31C627C2A194D84E47');
INSERT INTO "journal" VALUES(1,38,1781990648000,1795791699979,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":14,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'E69A158D4E900CBA924729817FFADEF03FB0A9AD6C7126368626999FD60BE48E');
INSERT INTO "journal" VALUES(1,39,1781990668000,1795791699983,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":191,"score":{"value":6.736050403720403,"unit":"GB/s"},"peaks":{"die_voltage":1.2245271867995924,"hottest_core":59.10447900089368,"package_power":99.98223574264497,"reached_clock":4801.15506421248,"room":21.33760840938821,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":14,"pass":0,"report":{"ran":20000,"rounds":191,"score":{"value":6.736050403720403,"unit":"GB/s"},"peaks":{"die_voltage":1.2245271867995924,"hottest_core":59.10447900089368,"package_power":99.98223574264497,"reached_clock":4801.15506421248,"room":21.33760840938821,"usage":100.0}}},{"kind":"pass-began","trial":14,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'0C7DF93B53D045841E8CDADC232F564D3EC4EF7C488209B803E00D05AF0E7F1F');
INSERT INTO "journal" VALUES(1,40,1781990758000,1795791700005,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":61612,"score":{"value":513.6719759793428,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2174256017616099,"hottest_core":66.15677925266174,"package_power":132.45429794857154,"reached_clock":4802.09328843053,"room":21.2183818058914,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":14,"pass":1,"report":{"ran":90000,"rounds":61612,"score":{"value":513.6719759793428,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2174256017616099,"hottest_core":66.15677925266174,"package_power":132.45429794857154,"reached_clock":4802.09328843053,"room":21.2183818058914,"usage":100.0}}},{"kind":"trial-ended","trial":14,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.12260046198075458,"low":0.06585635125113813,"high":0.17934457271037102}},{"kind":"trial-began","trial":15,"stage":1,"rung":{"core_clock":"4850","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4800"}},{"kind":"about-to-apply","trial":15,"change":{"setting":"core_clock","from":"4800","to":"4850"}}]}',X'0D09921D2784652F610756B84B344DCFE5D2C9AC9C0ACABC3C082C0CBDE394AE');
INSERT INTO "journal" VALUES(1,41,1781990759500,1795791700006,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4850","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":15,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'FCA51880157E99E4296E7C42FBE7E805CCF8C88B0108B30C510216E682F88E12');
INSERT INTO "journal" VALUES(1,42,1781990779500,1795791700010,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":193,"score":{"value":7.243372004122308,"unit":"GB/s"},"peaks":{"die_voltage":1.223938216717285,"hottest_core":59.1276984274366,"package_power":101.18517887775283,"reached_clock":4852.0908609918415,"room":21.20303316467923,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":15,"pass":0,"report":{"ran":20000,"rounds":193,"score":{"value":7.243372004122308,"unit":"GB/s"},"peaks":{"die_voltage":1.223938216717285,"hottest_core":59.1276984274366,"package_power":101.18517887775283,"reached_clock":4852.0908609918415,"room":21.20303316467923,"usage":100.0}}},{"kind":"pass-began","trial":15,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'000415742C2A975CBD4F3DDF16A6C418BF490F02D39D3AADE70C7D8CF7AC3935');
INSERT INTO "journal" VALUES(1,43,1781990831000,1795791700017,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":51500,"rounds":35508,"incidents":[{"incident":"wrong-result","place":"core 4","into_pass":51500,"evidence":"scaled residual 895.1, allowed 16"}],"peaks":{"die_voltage":1.2161877235140937,"hottest_core":65.91729919339257,"package_power":134.1460343745377,"reached_clock":4851.666475199937,"room":21.217931160282454,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":15,"pass":1,"report":{"ran":51500,"rounds":35508,"incidents":[{"incident":"wrong-result","place":"core 4","into_pass":51500,"evidence":"scaled residual 895.1, allowed 16"}],"peaks":{"die_voltage":1.2161877235140937,"hottest_core":65.91729919339257,"package_power":134.1460343745377,"reached_clock":4851.666475199937,"room":21.217931160282454,"usage":100.0}}},{"kind":"incident","trial":15,"pass":1,"incident":"wrong-result","place":"core 4","into_pass":51500,"evidence":"scaled residual 895.1, allowed 16"},{"kind":"trial-ended","trial":15,"verdict":"fell","incident":"wrong-result","tested":71500},{"kind":"trial-began","trial":16,"stage":1,"rung":{"core_clock":"4800","core_voltage":"1.250"},"proof":"quick","reason":{"why":"step-back","setting":"core_clock","from":"4850","depth":"shallow"}},{"kind":"about-to-apply","trial":16,"change":{"setting":"core_clock","from":"4850","to":"4800"}}]}',X'99022223EC276800910D7E77614DCF3526A79B37797FF5D4FD9FE01DB2C1FA06');
INSERT INTO "journal" VALUES(1,44,1781990832500,1795791700018,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":16,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9C1DDE4884F40C327622C77C229243E116A84B8911212B576A0E27185E3F26A1');
INSERT INTO "journal" VALUES(1,45,1781990852500,1795791700020,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":191,"score":{"value":7.17400140180046,"unit":"GB/s"},"peaks":{"die_voltage":1.2248957927515143,"hottest_core":59.1073687058003,"package_power":99.59257710841578,"reached_clock":4801.8421389737905,"room":21.297596216270616,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":16,"pass":0,"report":{"ran":20000,"rounds":191,"score":{"value":7.17400140180046,"unit":"GB/s"},"peaks":{"die_voltage":1.2248957927515143,"hottest_core":59.1073687058003,"package_power":99.59257710841578,"reached_clock":4801.8421389737905,"room":21.297596216270616,"usage":100.0}}},{"kind":"pass-began","trial":16,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'76E1C942AB0C10D85DC9689D9549AF29816730C9CE852D737DE74CA087DBF5B1');
INSERT INTO "journal" VALUES(1,46,1781990859750,1795791700021,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":7250,"rounds":4941,"incidents":[{"incident":"wrong-result","place":"core 6","into_pass":7250,"evidence":"scaled residual 5337.8, allowed 16"}],"peaks":{"die_voltage":1.214371825892405,"hottest_core":64.07948437227803,"package_power":132.07885071043913,"reached_clock":4801.003576276969,"room":21.27335647698736,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":16,"pass":1,"report":{"ran":7250,"rounds":4941,"incidents":[{"incident":"wrong-result","place":"core 6","into_pass":7250,"evidence":"scaled residual 5337.8, allowed 16"}],"peaks":{"die_voltage":1.214371825892405,"hottest_core":64.07948437227803,"package_power":132.07885071043913,"reached_clock":4801.003576276969,"room":21.27335647698736,"usage":100.0}}},{"kind":"incident","trial":16,"pass":1,"incident":"wrong-result","place":"core 6","into_pass":7250,"evidence":"scaled residual 5337.8, allowed 16"},{"kind":"trial-ended","trial":16,"verdict":"fell","incident":"wrong-result","tested":27250},{"kind":"trial-began","trial":17,"stage":1,"rung":{"core_clock":"4750","core_voltage":"1.250"},"proof":"quick","reason":{"why":"step-back","setting":"core_clock","from":"4800","depth":"shallow"}},{"kind":"about-to-apply","trial":17,"change":{"setting":"core_clock","from":"4800","to":"4750"}}]}',X'3C91DC0D4B68387D0AF1C4D17797F9601E1AABAF94953436E9AD56E4E5AE745D');
INSERT INTO "journal" VALUES(1,47,1781990861250,1795791700022,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":17,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'56037CED072EDC12DD04742468D222DC12D9D35036D824AC1D5FAFB0C3A0A907');
INSERT INTO "journal" VALUES(1,48,1781990881250,1795791700027,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":189,"score":{"value":7.117883414515735,"unit":"GB/s"},"peaks":{"die_voltage":1.2239724333740283,"hottest_core":57.73331108349131,"package_power":99.18193053924894,"reached_clock":4750.91712157277,"room":21.233087939415306,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":17,"pass":0,"report":{"ran":20000,"rounds":189,"score":{"value":7.117883414515735,"unit":"GB/s"},"peaks":{"die_voltage":1.2239724333740283,"hottest_core":57.73331108349131,"package_power":99.18193053924894,"reached_clock":4750.91712157277,"room":21.233087939415306,"usage":100.0}}},{"kind":"pass-began","trial":17,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'9FE5D7C24675607E2B8604E955B6C5F361FDFA8B660B2E8CC8A95C6E834EF3AD');
INSERT INTO "journal" VALUES(1,49,1781990900250,1795791700030,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":19000,"rounds":12762,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":19000,"evidence":"3 errors counted and repaired"}],"peaks":{"die_voltage":1.2154658938730563,"hottest_core":63.646509689853865,"package_power":130.99159593327443,"reached_clock":4751.561504363024,"room":21.19170939266231,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":17,"pass":1,"report":{"ran":19000,"rounds":12762,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":19000,"evidence":"3 errors counted and repaired"}],"peaks":{"die_voltage":1.2154658938730563,"hottest_core":63.646509689853865,"package_power":130.99159593327443,"reached_clock":4751.561504363024,"room":21.19170939266231,"usage":100.0}}},{"kind":"incident","trial":17,"pass":1,"incident":"corrected-error","place":"core 1","into_pass":19000,"evidence":"3 errors counted and repaired"},{"kind":"trial-ended","trial":17,"verdict":"slipped","incident":"corrected-error","tested":39000},{"kind":"trial-began","trial":18,"stage":1,"rung":{"core_clock":"4700","core_voltage":"1.250"},"proof":"quick","reason":{"why":"step-back","setting":"core_clock","from":"4750","depth":"shallow"}},{"kind":"about-to-apply","trial":18,"change":{"setting":"core_clock","from":"4750","to":"4700"}}]}',X'4182559EE93DE917D23C8686B7CCC4E4B2ED6A4CA2775F4C231BEE34D06F4162');
INSERT INTO "journal" VALUES(1,50,1781990901750,1795791700030,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":18,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'CAB3B46913FD295A6DA1A91A554AC5F3A7DF8BD4D2F6830377EF8B3D7E232109');
INSERT INTO "journal" VALUES(1,51,1781990921750,1795791700033,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.020783775405346,"unit":"GB/s"},"peaks":{"die_voltage":1.2244942697747814,"hottest_core":57.05058284689454,"package_power":97.53220798323099,"reached_clock":4701.658327837756,"room":21.22060664798409,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":18,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.020783775405346,"unit":"GB/s"},"peaks":{"die_voltage":1.2244942697747814,"hottest_core":57.05058284689454,"package_power":97.53220798323099,"reached_clock":4701.658327837756,"room":21.22060664798409,"usage":100.0}}},{"kind":"pass-began","trial":18,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'98BB02BF86D34BD1DB199949D4BDAA44B4A1D63E9E6EA43D531F0EE321493F2B');
INSERT INTO "journal" VALUES(1,52,1781991011750,1795791700043,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":506.38512628036426,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2168168467530172,"hottest_core":64.77610764628298,"package_power":129.9115152791564,"reached_clock":4701.762882188089,"room":21.24415568936492,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":18,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":506.38512628036426,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2168168467530172,"hottest_core":64.77610764628298,"package_power":129.9115152791564,"reached_clock":4701.762882188089,"room":21.24415568936492,"usage":100.0}}},{"kind":"trial-ended","trial":18,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10667547245244391,"low":0.04993136172282746,"high":0.16341958318206035}},{"kind":"mark-set","mark":{"rung":{"core_clock":"4700","core_voltage":"1.250"},"setting":"core_clock","proof":"quick","trial":18,"stage":1}},{"kind":"stage-ended","stage":1,"end":{"because":"next-did-not-hold","setting":"core_clock","value":"4750","verdict":"slipped","incident":"corrected-error"}},{"kind":"stage-began","stage":2,"strategy":"trim"},{"kind":"trial-began","trial":19,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.245"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.250"}},{"kind":"about-to-apply","trial":19,"change":{"setting":"core_voltage","from":"1.250","to":"1.245"}}]}',X'D9F664A5CF9A4DD45F4801C4E598CBB1719B3CDF4DA1083EDC3380AC3110B755');
INSERT INTO "journal" VALUES(1,53,1781991013250,1795791700044,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.245"}},"entries":[{"kind":"pass-began","trial":19,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'BC8AADD477EFD44DCAD3B91BD3F4A5C19511556D4B9C0A15FDCDC0BB6EDEE05B');
INSERT INTO "journal" VALUES(1,54,1781991033250,1795791700048,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.015248415422142,"unit":"GB/s"},"peaks":{"die_voltage":1.2210470002137164,"hottest_core":58.2223849917443,"package_power":96.98280299020348,"reached_clock":4701.670567810738,"room":21.297893116953222,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":19,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.015248415422142,"unit":"GB/s"},"peaks":{"die_voltage":1.2210470002137164,"hottest_core":58.2223849917443,"package_power":96.98280299020348,"reached_clock":4701.670567810738,"room":21.297893116953222,"usage":100.0}}},{"kind":"pass-began","trial":19,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'914C6EAEFDB5C9FB2C66C11355ADEAA7BE71494DA0452BE902749A47CDDD2AE6');
INSERT INTO "journal" VALUES(1,55,1781991123250,1795791700061,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":503.80985627136704,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2115422826021405,"hottest_core":64.92208607680303,"package_power":129.16659408805776,"reached_clock":4701.838810119685,"room":21.223021050107196,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":19,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":503.80985627136704,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2115422826021405,"hottest_core":64.92208607680303,"package_power":129.16659408805776,"reached_clock":4701.838810119685,"room":21.223021050107196,"usage":100.0}}},{"kind":"trial-ended","trial":19,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10104736845414108,"low":0.04430325772452463,"high":0.15779147918375752}},{"kind":"trial-began","trial":20,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.240"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.245"}},{"kind":"about-to-apply","trial":20,"change":{"setting":"core_voltage","from":"1.245","to":"1.240"}}]}',X'75F38FE2772B4681743CB094688168BD3CEAD8C8A9075A3BB1982480F5F3965B');
INSERT INTO "journal" VALUES(1,56,1781991124750,1795791700062,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.240"}},"entries":[{"kind":"pass-began","trial":20,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'AF17C5C51F9C5C830FD8549A6373BAAB6AB66FC241B029AD5124A68BCADB321D');
INSERT INTO "journal" VALUES(1,57,1781991144750,1795791700065,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.038278431408559,"unit":"GB/s"},"peaks":{"die_voltage":1.2144824024872602,"hottest_core":57.85320538629741,"package_power":97.19702432418539,"reached_clock":4701.273604924903,"room":21.209646234601124,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":20,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.038278431408559,"unit":"GB/s"},"peaks":{"die_voltage":1.2144824024872602,"hottest_core":57.85320538629741,"package_power":97.19702432418539,"reached_clock":4701.273604924903,"room":21.209646234601124,"usage":100.0}}},{"kind":"pass-began","trial":20,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'9F76E939E7533292683B3A4D020FD2463BB0199FB5E4832285B6DF4C6148D36A');
INSERT INTO "journal" VALUES(1,58,1781991234750,1795791700075,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":503.3422602638527,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2074570804081841,"hottest_core":64.71839558009066,"package_power":128.50247847218023,"reached_clock":4701.782695984255,"room":21.301002493555284,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":20,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":503.3422602638527,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2074570804081841,"hottest_core":64.71839558009066,"package_power":128.50247847218023,"reached_clock":4701.782695984255,"room":21.301002493555284,"usage":100.0}}},{"kind":"trial-ended","trial":20,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10002546436241966,"low":0.04328135363280321,"high":0.1567695750920361}},{"kind":"trial-began","trial":21,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.235"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.240"}},{"kind":"about-to-apply","trial":21,"change":{"setting":"core_voltage","from":"1.240","to":"1.235"}}]}',X'146D524D4DF7E959E67F6A0610E83A64FAF8D79C4C36A80A52EAE806327555A6');
INSERT INTO "journal" VALUES(1,59,1781991236250,1795791700076,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.235"}},"entries":[{"kind":"pass-began","trial":21,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9ECF55B8C909014EC9FA1FFE30F65ED1F2733DB754D01C78358FAA531C5E7E8E');
INSERT INTO "journal" VALUES(1,60,1781991256250,1795791700081,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.078597086371062,"unit":"GB/s"},"peaks":{"die_voltage":1.2102588035514752,"hottest_core":58.011805492973245,"package_power":95.97068184840019,"reached_clock":4701.574674804757,"room":21.28862877973617,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":21,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.078597086371062,"unit":"GB/s"},"peaks":{"die_voltage":1.2102588035514752,"hottest_core":58.011805492973245,"package_power":95.97068184840019,"reached_clock":4701.574674804757,"room":21.28862877973617,"usage":100.0}}},{"kind":"pass-began","trial":21,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'29B381ADDD901D1363A6C6099AA407750468DE297C9736121CF2308437212362');
INSERT INTO "journal" VALUES(1,61,1781991346250,1795791700092,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":505.3091655476718,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2018428329732638,"hottest_core":64.4346381962995,"package_power":127.41527192813764,"reached_clock":4701.8445749544335,"room":21.26742939254304,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":21,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":505.3091655476718,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2018428329732638,"hottest_core":64.4346381962995,"package_power":127.41527192813764,"reached_clock":4701.8445749544335,"room":21.26742939254304,"usage":100.0}}},{"kind":"trial-ended","trial":21,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10432402235962779,"low":0.04757991163001134,"high":0.16106813308924423}},{"kind":"trial-began","trial":22,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.230"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.235"}},{"kind":"about-to-apply","trial":22,"change":{"setting":"core_voltage","from":"1.235","to":"1.230"}}]}',X'2B1AFFF2014413130FC44ABA91BBB7B4A596F0881CCBA7C904679AFFF1369D7D');
INSERT INTO "journal" VALUES(1,62,1781991347750,1795791700092,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-began","trial":22,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'2716691359E51E54CF9855145A2DCF199AD62670469662F359393C15FC5E48A0');
INSERT INTO "journal" VALUES(1,63,1781991367750,1795791700095,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.014196350592962,"unit":"GB/s"},"peaks":{"die_voltage":1.205246898206489,"hottest_core":57.42019895200241,"package_power":95.38896919257566,"reached_clock":4701.495149973123,"room":21.24273649636831,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":22,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.014196350592962,"unit":"GB/s"},"peaks":{"die_voltage":1.205246898206489,"hottest_core":57.42019895200241,"package_power":95.38896919257566,"reached_clock":4701.495149973123,"room":21.24273649636831,"usage":100.0}}},{"kind":"pass-began","trial":22,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'77A52AA29672FC03410D0E459C641B6F1F8E9F3A6408EC88C7EB84A682E21866');
INSERT INTO "journal" VALUES(1,64,1781991457750,1795791700107,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":502.86692641586455,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1970410938748863,"hottest_core":64.42818958802012,"package_power":126.59708104292035,"reached_clock":4702.474282966658,"room":21.288601724454576,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":22,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":502.86692641586455,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1970410938748863,"hottest_core":64.42818958802012,"package_power":126.59708104292035,"reached_clock":4702.474282966658,"room":21.288601724454576,"usage":100.0}}},{"kind":"trial-ended","trial":22,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09898664966685589,"low":0.042242538937239435,"high":0.15573076039647232}},{"kind":"trial-began","trial":23,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.225"},"proof":"quick","reason":{"why":"harder","setting":"core_voltage","from":"1.230"}},{"kind":"about-to-apply","trial":23,"change":{"setting":"core_voltage","from":"1.230","to":"1.225"}}]}',X'6685C3E9DF814D3555BD1A17864789AD2B6A0D6A1E1451874E39257FEF4CAAA7');
INSERT INTO "journal" VALUES(1,65,1781991459250,1795791700108,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.225"}},"entries":[{"kind":"pass-began","trial":23,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'49E21DF78A88788434F5BA91CEDF90F2980795BF67BA270B8AF8EC0E1444E4F8');
INSERT INTO "journal" VALUES(1,66,1781991479250,1795791700110,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.017271571923407,"unit":"GB/s"},"peaks":{"die_voltage":1.2002548471859358,"hottest_core":57.26306657669442,"package_power":94.43794080023049,"reached_clock":4701.217408817658,"room":21.29561031103942,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":23,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.017271571923407,"unit":"GB/s"},"peaks":{"die_voltage":1.2002548471859358,"hottest_core":57.26306657669442,"package_power":94.43794080023049,"reached_clock":4701.217408817658,"room":21.29561031103942,"usage":100.0}}},{"kind":"pass-began","trial":23,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'028F561EB88CB2D8242AD6B4FBDE3B6294C19C5CCD2BDD255E023790DA78CC2A');
INSERT INTO "journal" VALUES(1,67,1781991535750,1795791700117,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":56500,"rounds":37853,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":56500,"evidence":"4 errors counted and repaired"}],"peaks":{"die_voltage":1.1921610242494056,"hottest_core":63.249291995031,"package_power":125.23319927338522,"reached_clock":4701.97103031438,"room":21.199879903446643,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":23,"pass":1,"report":{"ran":56500,"rounds":37853,"incidents":[{"incident":"corrected-error","place":"core 1","into_pass":56500,"evidence":"4 errors counted and repaired"}],"peaks":{"die_voltage":1.1921610242494056,"hottest_core":63.249291995031,"package_power":125.23319927338522,"reached_clock":4701.97103031438,"room":21.199879903446643,"usage":100.0}}},{"kind":"incident","trial":23,"pass":1,"incident":"corrected-error","place":"core 1","into_pass":56500,"evidence":"4 errors counted and repaired"},{"kind":"trial-ended","trial":23,"verdict":"slipped","incident":"corrected-error","tested":76500},{"kind":"trial-began","trial":24,"stage":2,"rung":{"core_clock":"4700","core_voltage":"1.230"},"proof":"quick","reason":{"why":"step-back","setting":"core_voltage","from":"1.225","depth":"shallow"}},{"kind":"about-to-apply","trial":24,"change":{"setting":"core_voltage","from":"1.225","to":"1.230"}}]}',X'586B26D0668922E6FC03B881DCFA09CDF67D47BC06066C56E9C23126F9078CFD');
INSERT INTO "journal" VALUES(1,68,1781991537250,1795791700118,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.230"}},"entries":[{"kind":"pass-began","trial":24,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'8AC81CECAFAC5AC742704011EF533037FF6C73DB93E82DAA52E124EC5966C152');
INSERT INTO "journal" VALUES(1,69,1781991557250,1795791700120,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.031543691947086,"unit":"GB/s"},"peaks":{"die_voltage":1.2062159054735386,"hottest_core":56.963739576011434,"package_power":95.43871815869119,"reached_clock":4701.1967311529115,"room":21.24380019890123,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":24,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.031543691947086,"unit":"GB/s"},"peaks":{"die_voltage":1.2062159054735386,"hottest_core":56.963739576011434,"package_power":95.43871815869119,"reached_clock":4701.1967311529115,"room":21.24380019890123,"usage":100.0}}},{"kind":"pass-began","trial":24,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'85201569FBD84E4EB2E3064DD237C8D320B962B22B1CF57C8238825EC698A90C');
INSERT INTO "journal" VALUES(1,70,1781991647250,1795791700134,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":501.85148618414166,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1972497576359797,"hottest_core":63.798923978732724,"package_power":127.21953670253376,"reached_clock":4701.583797295868,"room":21.219350795752867,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":24,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":501.85148618414166,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.1972497576359797,"hottest_core":63.798923978732724,"package_power":127.21953670253376,"reached_clock":4701.583797295868,"room":21.219350795752867,"usage":100.0}}},{"kind":"trial-ended","trial":24,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09676746363656386,"low":0.040023352906947404,"high":0.1535115743661803}},{"kind":"mark-set","mark":{"rung":{"core_clock":"4700","core_voltage":"1.230"},"setting":"core_voltage","proof":"quick","trial":24,"stage":2}},{"kind":"stage-ended","stage":2,"end":{"because":"next-did-not-hold","setting":"core_voltage","value":"1.225","verdict":"slipped","incident":"corrected-error"}},{"kind":"going-home","end":{"how":"completed"}},{"kind":"about-to-apply","trial":null,"change":{"setting":"core_clock","from":"4700","to":"4300"}}]}',X'CA0FB801650A2EF12C3B7857F49CF08A112D7FC7198CE69DE6F2FF2D97ECCC94');
INSERT INTO "journal" VALUES(1,71,1781991648750,1795791700135,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4300","core_voltage":"1.230"}},"entries":[{"kind":"about-to-apply","trial":null,"change":{"setting":"core_clock","from":"4300","to":"4200"}}]}',X'B083922770D9DAF48206A4F8352246B1CB1D356B14B739EB7C7DA7C0778EF24E');
INSERT INTO "journal" VALUES(1,72,1781991650250,1795791700135,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4200","core_voltage":"1.230"}},"entries":[{"kind":"about-to-apply","trial":null,"change":{"setting":"core_voltage","from":"1.230","to":"1.250"}}]}',X'B2403BF48271D3BE211EACCB3555FF5E9C8C30BF32BA35C804A11D085F313F28');
INSERT INTO "journal" VALUES(1,73,1781991651750,1795791700135,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4200","core_voltage":"1.250"}},"entries":[{"kind":"ended","how":"completed","marks":[{"rung":{"core_clock":"4700","core_voltage":"1.250"},"setting":"core_clock","proof":"quick","trial":18,"stage":1},{"rung":{"core_clock":"4700","core_voltage":"1.230"},"setting":"core_voltage","proof":"quick","trial":24,"stage":2}],"trials":24,"falls":2,"tested":2414250,"test_hours":0.670625}]}',X'E2F906D2F83D4869A703C1C46AC539824C9030D0EB307EEE7A6FA738E5F8B69E');
INSERT INTO "journal" VALUES(2,0,1781989200000,1795791700173,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"started","in_force":{"core_clock":"4200","core_voltage":"1.250"},"ahead":0},"entries":[{"kind":"began","in_force":{"core_clock":"4200","core_voltage":"1.250"}},{"kind":"stage-began","stage":0,"strategy":"baseline"},{"kind":"trial-began","trial":1,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":1,"of":2}},{"kind":"pass-began","trial":1,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'F70B86FF3C43AC971399FD25051C1B4BC42B4CB31BE1D48A23C3C5CF33A01FD2');
INSERT INTO "journal" VALUES(2,1,1781989220000,1795791700214,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.398610342087183,"unit":"GB/s"},"peaks":{"die_voltage":1.2285158214070884,"hottest_core":43.79624816935103,"package_power":87.73841466235802,"reached_clock":4201.370213554177,"room":21.186304835186146,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":1,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.398610342087183,"unit":"GB/s"},"peaks":{"die_voltage":1.2285158214070884,"hottest_core":43.79624816935103,"package_power":87.73841466235802,"reached_clock":4201.370213554177,"room":21.186304835186146,"usage":100.0}}},{"kind":"pass-began","trial":1,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'EF6B3383E4B8DF608DD68E33114BB1DCEB98E492A0D3A58007A17EB0EBF8E051');
INSERT INTO "journal" VALUES(2,2,1781989310000,1795791700394,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":456.9582535822856,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201272195339483,"hottest_core":57.927241044426886,"package_power":117.6527637938939,"reached_clock":4201.818995155663,"room":21.31362575157369,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":1,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":456.9582535822856,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2201272195339483,"hottest_core":57.927241044426886,"package_power":117.6527637938939,"reached_clock":4201.818995155663,"room":21.31362575157369,"usage":100.0}}},{"kind":"trial-ended","trial":1,"verdict":"held","incident":null,"tested":110000},{"kind":"trial-began","trial":2,"stage":0,"rung":{"core_clock":"4200","core_voltage":"1.250"},"proof":"quick","reason":{"why":"baseline","nth":2,"of":2}},{"kind":"pass-began","trial":2,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'06F38342280049B9F00B256129B41FD32A4A5D9DA701B571434C5C5F001934B1');
INSERT INTO "journal" VALUES(2,3,1781989330000,1795791700434,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":170,"score":{"value":6.392064093521956,"unit":"GB/s"},"peaks":{"die_voltage":1.2276649637285793,"hottest_core":55.136143296685994,"package_power":89.1918060489409,"reached_clock":4201.230025065305,"room":21.228273380391474,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":2,"pass":0,"report":{"ran":20000,"rounds":170,"score":{"value":6.392064093521956,"unit":"GB/s"},"peaks":{"die_voltage":1.2276649637285793,"hottest_core":55.136143296685994,"package_power":89.1918060489409,"reached_clock":4201.230025065305,"room":21.228273380391474,"usage":100.0}}},{"kind":"pass-began","trial":2,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'2F554AAD3868F9E51507BEAF640765FA32AD745DBD1EDADB7C256AAB8FDAED6A');
INSERT INTO "journal" VALUES(2,4,1781989420000,1795791700614,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":54835,"score":{"value":455.7758670656916,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2200739154428324,"hottest_core":60.40193734658071,"package_power":118.05151239238207,"reached_clock":4202.452433008968,"room":21.2175510931735,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":2,"pass":1,"report":{"ran":90000,"rounds":54835,"score":{"value":455.7758670656916,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2200739154428324,"hottest_core":60.40193734658071,"package_power":118.05151239238207,"reached_clock":4202.452433008968,"room":21.2175510931735,"usage":100.0}}},{"kind":"trial-ended","trial":2,"verdict":"held","incident":null,"tested":110000},{"kind":"stage-ended","stage":0,"end":{"because":"baseline-held"}},{"kind":"stage-began","stage":1,"strategy":"ascend"},{"kind":"trial-began","trial":3,"stage":1,"rung":{"core_clock":"4250","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4200"}},{"kind":"about-to-apply","trial":3,"change":{"setting":"core_clock","from":"4200","to":"4250"}}]}',X'499C991ADC27C8C2FFD747D38683CCDFE46B0DE3CA040353D4DA4985C40F48F9');
INSERT INTO "journal" VALUES(2,5,1781989421500,1795791700615,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4250","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":3,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'682DF7B73AE834E70F1724B54547A5A6CD1F464F4088F5F059230709FDE20C6C');
INSERT INTO "journal" VALUES(2,6,1781989441500,1795791700657,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":172,"score":{"value":6.452169106785163,"unit":"GB/s"},"peaks":{"die_voltage":1.2271163174613322,"hottest_core":54.517997818813356,"package_power":90.04057622133786,"reached_clock":4250.954001917154,"room":21.162936079672328,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":3,"pass":0,"report":{"ran":20000,"rounds":172,"score":{"value":6.452169106785163,"unit":"GB/s"},"peaks":{"die_voltage":1.2271163174613322,"hottest_core":54.517997818813356,"package_power":90.04057622133786,"reached_clock":4250.954001917154,"room":21.162936079672328,"usage":100.0}}},{"kind":"pass-began","trial":3,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'947DF14441E993A62C2D914E01EE9B395B9E555C892C5F08EA697C1338A0EF32');
INSERT INTO "journal" VALUES(2,7,1781989531500,1795791700837,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55408,"score":{"value":461.158572577245,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197435232789342,"hottest_core":61.27463606104526,"package_power":119.60266584381364,"reached_clock":4252.27301027875,"room":21.243108313730044,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":3,"pass":1,"report":{"ran":90000,"rounds":55408,"score":{"value":461.158572577245,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2197435232789342,"hottest_core":61.27463606104526,"package_power":119.60266584381364,"reached_clock":4252.27301027875,"room":21.243108313730044,"usage":100.0}}},{"kind":"trial-ended","trial":3,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.010499250865859677,"low":-0.018009924860365383,"high":0.03900842659208474}},{"kind":"trial-began","trial":4,"stage":1,"rung":{"core_clock":"4300","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4250"}},{"kind":"about-to-apply","trial":4,"change":{"setting":"core_clock","from":"4250","to":"4300"}}]}',X'A2177DB36D5FBA405AFF1AD8C104FFAFF595450498B9529EEBFEB626CA3C1C8C');
INSERT INTO "journal" VALUES(2,8,1781989533000,1795791700838,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4300","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":4,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'4CF1E036EB81016661097E521A98F0C12EF64C632AFC8CC755D9E5C51D40C1FB');
INSERT INTO "journal" VALUES(2,9,1781989553000,1795791700880,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":173,"score":{"value":6.523894447113577,"unit":"GB/s"},"peaks":{"die_voltage":1.226818704492642,"hottest_core":55.36035698521389,"package_power":90.93126461132807,"reached_clock":4301.43011657848,"room":21.167275622484723,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":4,"pass":0,"report":{"ran":20000,"rounds":173,"score":{"value":6.523894447113577,"unit":"GB/s"},"peaks":{"die_voltage":1.226818704492642,"hottest_core":55.36035698521389,"package_power":90.93126461132807,"reached_clock":4301.43011657848,"room":21.167275622484723,"usage":100.0}}},{"kind":"pass-began","trial":4,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'6863F87B40B99CBC302B6931763AB398F6E071BE9E3389E782EC869F876661E1');
INSERT INTO "journal" VALUES(2,10,1781989643000,1795791701060,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":55980,"score":{"value":463.3815801241597,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2188005483285784,"hottest_core":62.061784465839736,"package_power":120.4347750981511,"reached_clock":4301.791394030403,"room":21.263753963670208,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":4,"pass":1,"report":{"ran":90000,"rounds":55980,"score":{"value":463.3815801241597,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2188005483285784,"hottest_core":62.061784465839736,"package_power":120.4347750981511,"reached_clock":4301.791394030403,"room":21.263753963670208,"usage":100.0}}},{"kind":"trial-ended","trial":4,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.015370346394394163,"low":-0.013138829331830897,"high":0.04387952212061923}},{"kind":"trial-began","trial":5,"stage":1,"rung":{"core_clock":"4350","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4300"}},{"kind":"about-to-apply","trial":5,"change":{"setting":"core_clock","from":"4300","to":"4350"}}]}',X'0C7A939FC0D723650B1E3BB4DC42A74A01BFCF31623C408F03AD74F98100D733');
INSERT INTO "journal" VALUES(2,11,1781989644500,1795791701061,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4350","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":5,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'50BE52CDB2B53F060337A5BFAD462C75BDB0EB4BE4A60F066325182570F5D5F7');
INSERT INTO "journal" VALUES(2,12,1781989664500,1795791701103,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":175,"score":{"value":6.578615118258257,"unit":"GB/s"},"peaks":{"die_voltage":1.2266949418914643,"hottest_core":55.82187360392577,"package_power":92.05413095671585,"reached_clock":4351.190477996479,"room":21.19234402810559,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":5,"pass":0,"report":{"ran":20000,"rounds":175,"score":{"value":6.578615118258257,"unit":"GB/s"},"peaks":{"die_voltage":1.2266949418914643,"hottest_core":55.82187360392577,"package_power":92.05413095671585,"reached_clock":4351.190477996479,"room":21.19234402810559,"usage":100.0}}},{"kind":"pass-began","trial":5,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'46303ACB2366BFDA1C4EFE3772005C1B718C2D486A38E23F7FB216E582CE7AAC');
INSERT INTO "journal" VALUES(2,13,1781989754500,1795791701283,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":56551,"score":{"value":471.75261225149717,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2191299866087189,"hottest_core":62.18606893724389,"package_power":121.88688696782206,"reached_clock":4351.848357199802,"room":21.24355825351363,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":5,"pass":1,"report":{"ran":90000,"rounds":56551,"score":{"value":471.75261225149717,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2191299866087189,"hottest_core":62.18606893724389,"package_power":121.88688696782206,"reached_clock":4351.848357199802,"room":21.24355825351363,"usage":100.0}}},{"kind":"trial-ended","trial":5,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.033713107857928915,"low":0.005203932131703854,"high":0.06222228358415398}},{"kind":"trial-began","trial":6,"stage":1,"rung":{"core_clock":"4400","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4350"}},{"kind":"about-to-apply","trial":6,"change":{"setting":"core_clock","from":"4350","to":"4400"}}]}',X'253144FA4B3EDB9B2662B2F6ACA44C33E6FE5FE232B4C560892868D8D4BC4302');
INSERT INTO "journal" VALUES(2,14,1781989756000,1795791701284,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4400","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":6,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'FC60520F758F1E302EBBD5C81F4E1C9A0CD20CE60A39646EF3BBFED78C151983');
INSERT INTO "journal" VALUES(2,15,1781989776000,1795791701331,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":177,"score":{"value":6.618371223819829,"unit":"GB/s"},"peaks":{"die_voltage":1.2274181926211767,"hottest_core":56.18274836307292,"package_power":92.93939579987621,"reached_clock":4401.629403814618,"room":21.18799982681279,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":6,"pass":0,"report":{"ran":20000,"rounds":177,"score":{"value":6.618371223819829,"unit":"GB/s"},"peaks":{"die_voltage":1.2274181926211767,"hottest_core":56.18274836307292,"package_power":92.93939579987621,"reached_clock":4401.629403814618,"room":21.18799982681279,"usage":100.0}}},{"kind":"pass-began","trial":6,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'36850F8F90F5A734BA40D8099534EB27296E57430F9BE70A62DBBBDF5113F2A5');
INSERT INTO "journal" VALUES(2,16,1781989866000,1795791701506,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57120,"score":{"value":476.7698141791481,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218885895220915,"hottest_core":62.9200141500892,"package_power":123.16346097838142,"reached_clock":4401.846525984002,"room":21.217034019962643,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":6,"pass":1,"report":{"ran":90000,"rounds":57120,"score":{"value":476.7698141791481,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.218885895220915,"hottest_core":62.9200141500892,"package_power":123.16346097838142,"reached_clock":4401.846525984002,"room":21.217034019962643,"usage":100.0}}},{"kind":"trial-ended","trial":6,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.04470689414059592,"low":0.01619771841437086,"high":0.07321606986682098}},{"kind":"trial-began","trial":7,"stage":1,"rung":{"core_clock":"4450","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4400"}},{"kind":"about-to-apply","trial":7,"change":{"setting":"core_clock","from":"4400","to":"4450"}}]}',X'1956D35113174F9A539F616AD1D909AB0E67D159A8B73C535EA5FC29285A8433');
INSERT INTO "journal" VALUES(2,17,1781989867500,1795791701507,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4450","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":7,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'9ACB2BC3A093687511F6AFAC08C0541036B2B4C2DD970A5B94E8DD8382F377DA');
INSERT INTO "journal" VALUES(2,18,1781989887500,1795791701549,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":179,"score":{"value":6.719521993978934,"unit":"GB/s"},"peaks":{"die_voltage":1.2260095451962043,"hottest_core":56.64118722518271,"package_power":93.39104318255217,"reached_clock":4451.038241110305,"room":21.221245462523697,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":7,"pass":0,"report":{"ran":20000,"rounds":179,"score":{"value":6.719521993978934,"unit":"GB/s"},"peaks":{"die_voltage":1.2260095451962043,"hottest_core":56.64118722518271,"package_power":93.39104318255217,"reached_clock":4451.038241110305,"room":21.221245462523697,"usage":100.0}}},{"kind":"pass-began","trial":7,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'DFC203E7D1315188EA520E966DABA360809982AF98CD6C178E6CBF266B113A03');
INSERT INTO "journal" VALUES(2,19,1781989977500,1795791701729,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":57687,"score":{"value":481.6636531691891,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183378864981682,"hottest_core":63.37908521442629,"package_power":124.23124243891105,"reached_clock":4452.019379942134,"room":21.254968161056066,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":7,"pass":1,"report":{"ran":90000,"rounds":57687,"score":{"value":481.6636531691891,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2183378864981682,"hottest_core":63.37908521442629,"package_power":124.23124243891105,"reached_clock":4452.019379942134,"room":21.254968161056066,"usage":100.0}}},{"kind":"trial-ended","trial":7,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.05543036525739109,"low":0.02692118953116603,"high":0.08393954098361615}},{"kind":"trial-began","trial":8,"stage":1,"rung":{"core_clock":"4500","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4450"}},{"kind":"about-to-apply","trial":8,"change":{"setting":"core_clock","from":"4450","to":"4500"}}]}',X'C7452F8F62DED12E5441A0709273AC02BA267D7CEA83E1137CD8490886FD5DF1');
INSERT INTO "journal" VALUES(2,20,1781989979000,1795791701730,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4500","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":8,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'6B6A0D836A2ACCD81F44917BA6001ABBA83453E32A1B20B370039D75A67E4BD4');
INSERT INTO "journal" VALUES(2,21,1781989999000,1795791701772,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":180,"score":{"value":6.790519196115058,"unit":"GB/s"},"peaks":{"die_voltage":1.2264311446266203,"hottest_core":56.82290983784927,"package_power":94.89498452855094,"reached_clock":4501.757672408098,"room":21.2978024011077,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":8,"pass":0,"report":{"ran":20000,"rounds":180,"score":{"value":6.790519196115058,"unit":"GB/s"},"peaks":{"die_voltage":1.2264311446266203,"hottest_core":56.82290983784927,"package_power":94.89498452855094,"reached_clock":4501.757672408098,"room":21.2978024011077,"usage":100.0}}},{"kind":"pass-began","trial":8,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'3C265D98FB3FB546003DC952AAE612CBCE8FD33E64EB0FCABA062FEFAA078037');
INSERT INTO "journal" VALUES(2,22,1781990089000,1795791701952,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58252,"score":{"value":485.786674710944,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2180753071234658,"hottest_core":63.747513314239804,"package_power":125.25175878318402,"reached_clock":4502.03723556361,"room":21.273780690779997,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":8,"pass":1,"report":{"ran":90000,"rounds":58252,"score":{"value":485.786674710944,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2180753071234658,"hottest_core":63.747513314239804,"package_power":125.25175878318402,"reached_clock":4502.03723556361,"room":21.273780690779997,"usage":100.0}}},{"kind":"trial-ended","trial":8,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.0644648068291116,"low":0.035955631102886534,"high":0.09297398255533666}},{"kind":"trial-began","trial":9,"stage":1,"rung":{"core_clock":"4550","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4500"}},{"kind":"about-to-apply","trial":9,"change":{"setting":"core_clock","from":"4500","to":"4550"}}]}',X'25916183885877ADF617A93B1C051811FCD74BA205F48D556B02B910D28EFDF6');
INSERT INTO "journal" VALUES(2,23,1781990090500,1795791701953,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4550","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":9,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'ACCAA60EAAD6C86F8DBFAA8DD7D53A7ACF496563215E7DA461C1371470C622AB');
INSERT INTO "journal" VALUES(2,24,1781990110500,1795791701995,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":182,"score":{"value":6.825579341214689,"unit":"GB/s"},"peaks":{"die_voltage":1.2259878548479741,"hottest_core":57.53518317440187,"package_power":95.62757381652916,"reached_clock":4551.192597033493,"room":21.278133344923805,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":9,"pass":0,"report":{"ran":20000,"rounds":182,"score":{"value":6.825579341214689,"unit":"GB/s"},"peaks":{"die_voltage":1.2259878548479741,"hottest_core":57.53518317440187,"package_power":95.62757381652916,"reached_clock":4551.192597033493,"room":21.278133344923805,"usage":100.0}}},{"kind":"pass-began","trial":9,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'2DDE59E1AAF92AF416B19A5116F5610B095CA65FEA0BD76FC5CD26B81036894D');
INSERT INTO "journal" VALUES(2,25,1781990200500,1795791702175,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":58816,"score":{"value":490.5553756450121,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2172886732622297,"hottest_core":63.79469338011858,"package_power":126.50368162530374,"reached_clock":4551.400941676019,"room":21.284253332975346,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":9,"pass":1,"report":{"ran":90000,"rounds":58816,"score":{"value":490.5553756450121,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2172886732622297,"hottest_core":63.79469338011858,"package_power":126.50368162530374,"reached_clock":4551.400941676019,"room":21.284253332975346,"usage":100.0}}},{"kind":"trial-ended","trial":9,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.07491407310762566,"low":0.04640489738140059,"high":0.10342324883385072}},{"kind":"trial-began","trial":10,"stage":1,"rung":{"core_clock":"4600","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4550"}},{"kind":"about-to-apply","trial":10,"change":{"setting":"core_clock","from":"4550","to":"4600"}}]}',X'421148F2119BCF83196BEE8E4327648D92F2D20176BDBEFAA0ABEE641BDCB82C');
INSERT INTO "journal" VALUES(2,26,1781990202000,1795791702176,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4600","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":10,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'0541013E44F9D89401445913741FD354416940245F1322F2F9FE2DCD47E05B05');
INSERT INTO "journal" VALUES(2,27,1781990222000,1795791702218,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":184,"score":{"value":6.923287131433772,"unit":"GB/s"},"peaks":{"die_voltage":1.226453965643902,"hottest_core":57.5214499180473,"package_power":96.22372832508633,"reached_clock":4601.302318824181,"room":21.35232882850812,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":10,"pass":0,"report":{"ran":20000,"rounds":184,"score":{"value":6.923287131433772,"unit":"GB/s"},"peaks":{"die_voltage":1.226453965643902,"hottest_core":57.5214499180473,"package_power":96.22372832508633,"reached_clock":4601.302318824181,"room":21.35232882850812,"usage":100.0}}},{"kind":"pass-began","trial":10,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'349FCBCB5DCC0D6ABA7C4D29F352DAE69AD24CAD222FA26D37A6F0530B4E80EB');
INSERT INTO "journal" VALUES(2,28,1781990312000,1795791702398,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59378,"score":{"value":493.75050831855174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2173159063169088,"hottest_core":64.33061766861799,"package_power":128.33603731220214,"reached_clock":4601.674364293228,"room":21.308282410940745,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":10,"pass":1,"report":{"ran":90000,"rounds":59378,"score":{"value":493.75050831855174,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2173159063169088,"hottest_core":64.33061766861799,"package_power":128.33603731220214,"reached_clock":4601.674364293228,"room":21.308282410940745,"usage":100.0}}},{"kind":"trial-ended","trial":10,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.08191530731429975,"low":0.05340613158807468,"high":0.11042448304052481}},{"kind":"trial-began","trial":11,"stage":1,"rung":{"core_clock":"4650","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4600"}},{"kind":"about-to-apply","trial":11,"change":{"setting":"core_clock","from":"4600","to":"4650"}}]}',X'50E43FD113B136F9A030294BC95E2CD80ECA19594016772B6FBEF546FCFE649C');
INSERT INTO "journal" VALUES(2,29,1781990313500,1795791702399,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4650","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":11,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'0E7A3B6F1A85526D2171F1ABC37B974C78E8E9854B20792DF325FBBB14267716');
INSERT INTO "journal" VALUES(2,30,1781990333500,1795791702445,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":186,"score":{"value":6.967812379541443,"unit":"GB/s"},"peaks":{"die_voltage":1.2254215891796145,"hottest_core":57.96468269309024,"package_power":97.03927256861064,"reached_clock":4651.548759598761,"room":21.254416369264572,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":11,"pass":0,"report":{"ran":20000,"rounds":186,"score":{"value":6.967812379541443,"unit":"GB/s"},"peaks":{"die_voltage":1.2254215891796145,"hottest_core":57.96468269309024,"package_power":97.03927256861064,"reached_clock":4651.548759598761,"room":21.254416369264572,"usage":100.0}}},{"kind":"pass-began","trial":11,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'D6D9C39A1700798447D7DB09B0D37A1746B429E49DA3B406BA4BDBD517E3AA0C');
INSERT INTO "journal" VALUES(2,31,1781990423500,1795791702621,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":59939,"score":{"value":501.49321125218074,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2169874057792123,"hottest_core":64.7839157527527,"package_power":129.16689927625958,"reached_clock":4651.65957708346,"room":21.348615892642872,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":11,"pass":1,"report":{"ran":90000,"rounds":59939,"score":{"value":501.49321125218074,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2169874057792123,"hottest_core":64.7839157527527,"package_power":129.16689927625958,"reached_clock":4651.65957708346,"room":21.348615892642872,"usage":100.0}}},{"kind":"trial-ended","trial":11,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.09888126214927895,"low":0.07037208642305388,"high":0.127390437875504}},{"kind":"trial-began","trial":12,"stage":1,"rung":{"core_clock":"4700","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4650"}},{"kind":"about-to-apply","trial":12,"change":{"setting":"core_clock","from":"4650","to":"4700"}}]}',X'A97318403FF5734488FE2188994E78B2FDF048C6B7140F6DF2D6B028A0E1116D');
INSERT INTO "journal" VALUES(2,32,1781990425000,1795791702622,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4700","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":12,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'B0664A2827B9986F37795200A75DEE892A3BF1161ADDC1E4980B28A55BA02924');
INSERT INTO "journal" VALUES(2,33,1781990445000,1795791702664,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":187,"score":{"value":7.042758566713057,"unit":"GB/s"},"peaks":{"die_voltage":1.2249629290609896,"hottest_core":58.110929171627184,"package_power":97.88860100148982,"reached_clock":4701.826949807673,"room":21.23389930451919,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":12,"pass":0,"report":{"ran":20000,"rounds":187,"score":{"value":7.042758566713057,"unit":"GB/s"},"peaks":{"die_voltage":1.2249629290609896,"hottest_core":58.110929171627184,"package_power":97.88860100148982,"reached_clock":4701.826949807673,"room":21.23389930451919,"usage":100.0}}},{"kind":"pass-began","trial":12,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'FBB18F8B22BF9BCE62FA243E4875901ADCDAFD45E2A7E1AA5A74F8F7C820EAF1');
INSERT INTO "journal" VALUES(2,34,1781990535000,1795791702844,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":60498,"score":{"value":504.73554303313637,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2163605525329197,"hottest_core":65.4356674979163,"package_power":131.03554982319625,"reached_clock":4702.309026926209,"room":21.2898560667572,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":12,"pass":1,"report":{"ran":90000,"rounds":60498,"score":{"value":504.73554303313637,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2163605525329197,"hottest_core":65.4356674979163,"package_power":131.03554982319625,"reached_clock":4702.309026926209,"room":21.2898560667572,"usage":100.0}}},{"kind":"trial-ended","trial":12,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.10598591991895634,"low":0.07747674419273128,"high":0.1344950956451814}},{"kind":"trial-began","trial":13,"stage":1,"rung":{"core_clock":"4750","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4700"}},{"kind":"about-to-apply","trial":13,"change":{"setting":"core_clock","from":"4700","to":"4750"}}]}',X'ACAE38FEC848A75B45541ABE409F2BB069CC9DD8968087C653705EA8B4AD3585');
INSERT INTO "journal" VALUES(2,35,1781990536500,1795791702845,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4750","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":13,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'F0B865B6F060BAA40F4654ADCF97E9883E19ADED38A8C67E2466A261ADE7A688');
INSERT INTO "journal" VALUES(2,36,1781990556500,1795791702887,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":189,"score":{"value":7.076760150894534,"unit":"GB/s"},"peaks":{"die_voltage":1.2257816163943667,"hottest_core":58.7294535535269,"package_power":99.45761935197717,"reached_clock":4751.34719862372,"room":21.25993914780328,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":13,"pass":0,"report":{"ran":20000,"rounds":189,"score":{"value":7.076760150894534,"unit":"GB/s"},"peaks":{"die_voltage":1.2257816163943667,"hottest_core":58.7294535535269,"package_power":99.45761935197717,"reached_clock":4751.34719862372,"room":21.25993914780328,"usage":100.0}}},{"kind":"pass-began","trial":13,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'1D0DAC3429221A7C583148B74A6CD0881579465AA19518AF325C23D219E6C7FC');
INSERT INTO "journal" VALUES(2,37,1781990646500,1795791703067,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":90000,"rounds":61056,"score":{"value":507.9024681578701,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2161948497160087,"hottest_core":65.65357118971262,"package_power":131.68598658227592,"reached_clock":4751.690119192374,"room":21.236972053055947,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":13,"pass":1,"report":{"ran":90000,"rounds":61056,"score":{"value":507.9024681578701,"unit":"GFLOP/s"},"peaks":{"die_voltage":1.2161948497160087,"hottest_core":65.65357118971262,"package_power":131.68598658227592,"reached_clock":4751.690119192374,"room":21.236972053055947,"usage":100.0}}},{"kind":"trial-ended","trial":13,"verdict":"held","incident":null,"tested":110000,"gain":{"change":0.11292534521947095,"low":0.08441616949324589,"high":0.141434520945696}},{"kind":"trial-began","trial":14,"stage":1,"rung":{"core_clock":"4800","core_voltage":"1.250"},"proof":"quick","reason":{"why":"harder","setting":"core_clock","from":"4750"}},{"kind":"about-to-apply","trial":14,"change":{"setting":"core_clock","from":"4750","to":"4800"}}]}',X'B0B28208E0641370A64C7C6A752296E8866AEFA711625AAD1CE93251E536A0EA');
INSERT INTO "journal" VALUES(2,38,1781990648000,1795791703068,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"applied","reported":{"core_clock":"4800","core_voltage":"1.250"}},"entries":[{"kind":"pass-began","trial":14,"pass":0,"order":{"load":"integer","length":20000,"threads":"all"}}]}',X'E3936E586284204613C06D15739CF07E2AA532B537E3C16F94FFEB4EC2915817');
INSERT INTO "journal" VALUES(2,39,1781990668000,1795791703110,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":20000,"rounds":191,"score":{"value":7.18817061124197,"unit":"GB/s"},"peaks":{"die_voltage":1.2251819098821675,"hottest_core":58.87446119366172,"package_power":99.94843819930976,"reached_clock":4801.50068504321,"room":21.253957542819705,"usage":100.0}}},"entries":[{"kind":"pass-ended","trial":14,"pass":0,"report":{"ran":20000,"rounds":191,"score":{"value":7.18817061124197,"unit":"GB/s"},"peaks":{"die_voltage":1.2251819098821675,"hottest_core":58.87446119366172,"package_power":99.94843819930976,"reached_clock":4801.50068504321,"room":21.253957542819705,"usage":100.0}}},{"kind":"pass-began","trial":14,"pass":1,"order":{"load":"dense","length":90000,"threads":"all"}}]}',X'F76C3CB5CC1B0BD5EDBDDE73FE4D457A0128C5FFCEA8D71C4FCFFCFC90166C8F');
INSERT INTO "journal" VALUES(3,0,1795791703182,1795791703182,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"started","in_force":{},"ahead":0},"entries":[{"kind":"began","in_force":{}},{"kind":"stage-began","stage":0,"strategy":"baseline"},{"kind":"trial-began","trial":1,"stage":0,"rung":{"base_clock":"100","multiplier":"36"},"proof":"glance","reason":{"why":"baseline","nth":1,"of":1}},{"kind":"about-to-apply","trial":1,"change":{"setting":"multiplier","from":null,"to":"36"}},{"kind":"asked","trial":1,"question":{"question":"change","change":{"setting":"multiplier","from":null,"to":"36"}}}]}',X'E194EB18ECBC8D6737843AF9B55D559DFAB6748E6EB4B94129F60FF110A3A9BA');
INSERT INTO "journal" VALUES(3,1,1795791703183,1795791703183,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"operator-said","said":{"said":"done"}},"entries":[{"kind":"operator","said":"done"},{"kind":"about-to-apply","trial":1,"change":{"setting":"base_clock","from":null,"to":"100"}},{"kind":"asked","trial":1,"question":{"question":"change","change":{"setting":"base_clock","from":null,"to":"100"}}}]}',X'F2655438F018843D8410EA27B579F9C8AFB89063A82E42837DDA36DB0E73EECD');
INSERT INTO "journal" VALUES(3,2,1795791707155,1795791707155,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"operator-said","said":{"said":"done"}},"entries":[{"kind":"operator","said":"done"},{"kind":"pass-began","trial":1,"pass":0,"order":{"load":"dense","length":2000,"threads":"all"}}]}',X'94D0BE95651A1FF86C09C95115B77DE60DBEA5BD6F523B772DD9CBD144B2DEE5');
INSERT INTO "journal" VALUES(3,3,1795791709650,1795791709650,'668604b8-b7fc-405e-8191-6f66d9d720d2','{"event":{"event":"pass-ended","report":{"ran":2239,"rounds":10,"score":{"value":30.960100922077153,"unit":"GFLOP/s"},"peaks":{"reported_clock":2499.998,"usage":100.0},"workload":{"kernel":"avx512","size":2000,"size_name":"unknowns","bytes":137304320,"round":1192}}},"entries":[{"kind":"pass-ended","trial":1,"pass":0,"report":{"ran":2239,"rounds":10,"score":{"value":30.960100922077153,"unit":"GFLOP/s"},"peaks":{"reported_clock":2499.998,"usage":100.0},"workload":{"kernel":"avx512","size":2000,"size_name":"unknowns","bytes":137304320,"round":1192}}},{"kind":"trial-ended","trial":1,"verdict":"held","incident":null,"tested":2239},{"kind":"stage-ended","stage":0,"end":{"because":"baseline-held"}},{"kind":"stage-began","stage":1,"strategy":"ascend"},{"kind":"trial-began","trial":2,"stage":1,"rung":{"base_clock":"100","multiplier":"36.5"},"proof":"glance","reason":{"why":"harder","setting":"multiplier","from":"36"}},{"kind":"about-to-apply","trial":2,"change":{"setting":"multiplier","from":"36","to":"36.5"}},{"kind":"asked","trial":2,"question":{"question":"change","change":{"setting":"multiplier","from":"36","to":"36.5"}}}]}',X'BDC3D3E5FE185C1DD15AA158581BB2C127EABD77A077FF94CFFA3D4BA4B030F7');
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
INSERT INTO "passes" VALUES(3,1,0,'dense',1795791707155,2239,10,'all');
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
);
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
INSERT INTO "scores" VALUES(3,1,0,'dense','all',3.09601009220771530286e+01,'GFLOP/s',3.09601009220771530286e+01);
CREATE TABLE seals (
    climb INTEGER PRIMARY KEY,
    digest BLOB NOT NULL
);
INSERT INTO "seals" VALUES(1,X'2D46A61EC9EDDC4FC999F4F0FD606A92BBE172F587E28EB18E01C4F183DF0002');
CREATE TABLE tail (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    value REAL NOT NULL,
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
INSERT INTO "trials" VALUES(3,1,0,'{"base_clock":"100","multiplier":"36"}','glance',1795791703182,'held',NULL,2239);
INSERT INTO "trials" VALUES(3,2,1,'{"base_clock":"100","multiplier":"36.5"}','glance',1795791709650,NULL,NULL,NULL);
CREATE INDEX runs_of_climb ON runs (climb, at);
COMMIT;
