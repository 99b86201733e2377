import type { HowTo } from './howToMeasure';

const how = (
  where: string,
  misread: string,
  more: Omit<HowTo, 'where' | 'misread'> = {},
): HowTo => ({ where, misread, ...more });

const SHORT_LIVED = 'Short peaks while a program starts are not what it keeps.';

/** How each field is taken, by its path with `*` for any part. Usual ranges are common practice without a source. */
export const HOW_TO: Readonly<Record<string, HowTo>> = {
  'identity.year': how(
    'From the label on the underside or the date of the firmware.',
    'The year of sale is not that of the model.',
    { usual: [2015, 2026] },
  ),
  'shell.widthMm': how(
    'Across the base, without hinges and ports that stand out.',
    'The display’s diagonal is no width.',
    { usual: [290, 400] },
  ),
  'shell.depthMm': how(
    'From the front edge to the rear one, at the base.',
    'A rear that slopes out is measured where the vents are.',
    { usual: [200, 290] },
  ),
  'shell.thicknessMm': how(
    'Closed, at the rear edge over the vents, without the feet.',
    'The thinnest edge, as it is advertised, is not where the cooling lies.',
    { usual: [13, 30] },
  ),
  'shell.massKg': how('The machine alone, battery in.', 'The adapter is not part of it.', {
    usual: [1, 3.2],
  }),
  'shell.footHeightMm': how(
    'On a flat table: from the table to the base, beside a rear foot; a gauge or drill shank that just slides under.',
    'Rubber sinks in: with its own weight on it.',
    { tool: 'feeler gauge or drill shanks', usual: [1, 5], drawing: 'foot' },
  ),
  'shell.feet': how(
    'From below: feet at the corners, or rubber along a rim for most of its length.',
    'A strip in two halves closes nearly as much as one.',
    { tool: 'by eye' },
  ),
  'shell.skinLimitC': how(
    'The house’s own limit for what is touched, else a usual one is taken.',
    'It is no measured temperature.',
    { tool: 'by rule of the house', usual: [43, 55] },
  ),
  'shell.exhaustLimitC': how(
    'The house’s own limit for air that leaves beside a hand.',
    'It is no measured temperature.',
    { tool: 'by rule of the house', usual: [60, 90] },
  ),
  'shell.material': how(
    'The base cover: a magnet and the sound of a fingernail tell metal from plastic.',
    'Lacquered plastic feels like metal; cold to the lip is metal.',
    { tool: 'by eye' },
  ),
  'shell.finish': how('The base cover outside.', 'Clear anodised metal is bare.', {
    tool: 'by eye',
  }),
  'power.source': how('As the run is made.', 'On battery most machines draw less.', {
    tool: 'by eye',
  }),
  'power.adapterW': how(
    'From the label of the adapter: volts × amperes of its output.',
    'The line of the input is not the output. Never open an adapter.',
    { usual: [45, 330] },
  ),
  'power.restW': how(
    'Wall power at rest with the display as in the run, less what CPU and GPU report.',
    'A charging battery hides in it: charged full first.',
    { usual: [8, 40] },
  ),
  'settings.*.cpuSustainedW': how(
    'The long-term limit in the firmware set-up, or the flat line of a log after a minute of load.',
    SHORT_LIVED,
    { usual: [10, 120] },
  ),
  'settings.*.cpuShortW': how('The short-term limit, or the first plateau of a log.', SHORT_LIVED, {
    usual: [20, 200],
  }),
  'settings.*.cpuShortWindowS': how(
    'From the beginning of the load to the fall of the first plateau.',
    'The average decides, so that a machine that was busy before falls earlier.',
    { tool: 'from a log of the machine', usual: [10, 60] },
  ),
  'settings.*.gpuSustainedW': how(
    'The board power of a log under graphics load alone.',
    'Chip power leaves out memory and regulators.',
    { usual: [20, 200] },
  ),
  'settings.*.skinHeld': how(
    'A log in which watts sink while junctions and fans stand still, and the base stays at one temperature.',
    'A later limit looks alike: it comes at once and stays.',
    { tool: 'from a log' },
  ),
  'settings.*.fanRamp.startC': how(
    'The junction at which the fans are first heard.',
    'Hysteresis: on the way up, not down.',
    { usual: [45, 70] },
  ),
  'settings.*.fanRamp.fullC': how(
    'The junction at which their speed rises no more.',
    'A preset may cap the speed below what the fan can.',
    { usual: [75, 97] },
  ),
  'settings.*.fanRamp.hysteresisK': how(
    'Between start on the way up and stop on the way down.',
    'A slow ramp looks like one.',
    { usual: [2, 12] },
  ),
  'settings.*.later.afterS': how(
    'From the beginning of the load to the lasting drop.',
    'A drop that comes back is heat, not a limit.',
    { usual: [120, 900] },
  ),
  'settings.*.later.cpuSustainedW': how('The flat line after the drop.', SHORT_LIVED, {
    usual: [10, 90],
  }),
  'settings.*.later.gpuSustainedW': how('The flat line after the drop.', SHORT_LIVED, {
    usual: [20, 150],
  }),
  'dies.*.role': how(
    'Beside the socketed or soldered memory lies the CPU; its own memory rings the GPU.',
    'A chipset is a third, small die.',
    { tool: 'by eye' },
  ),
  'dies.*.widthMm': how(
    'The bare silicon, across the machine. With the sink on: its shade on the paste of the last opening.',
    'The green or brown carrier is not the die.',
    { usual: [8, 25], drawing: 'die' },
  ),
  'dies.*.lengthMm': how(
    'The bare silicon, front to rear.',
    'Two pieces of silicon side by side are measured over both.',
    { usual: [8, 30], drawing: 'die' },
  ),
  'dies.*.maxJunctionC': how(
    'The highest reading of a long log under full load, or the limit that the firmware tells.',
    'Where it throttles is the limit, not where it shuts down.',
    { usual: [83, 105] },
  ),
  'dies.*.sensor': how(
    'What the reading stands for: the hottest spot, or a mean over the die.',
    'A GPU may report both; the one that the limit acts on counts.',
    { tool: 'from a log of the machine', drawing: 'sensor' },
  ),
  'dies.*.powerMeaning': how(
    'What the log’s watts take in: die, package, or the whole board.',
    'Regulators outside are lost watts all the same.',
    { tool: 'from the log’s description' },
  ),
  'dies.*.interface.kind': how(
    'Grey and smeared is paste; a dry film that softens warm is phase change; a silver bead that runs is liquid metal: do not touch it.',
    'Grey putty on memory is a pad.',
    { tool: 'by eye' },
  ),
  'dies.*.interface.conductivityWmK': how(
    'From the package of the material that was put on.',
    'Printed figures are of the bulk and high; without a package leave it empty.',
    { usual: [3, 14] },
  ),
  'dies.*.interface.bondLineUm': how(
    'Cannot be seen: die to plate with the screws drawn. Known only from the plate’s height over a gauge.',
    'The bead as it was squeezed out is no bond line. Without a gauge leave it empty.',
    { usual: [20, 90], drawing: 'bond-line' },
  ),
  'dies.*.interface.ageYears': how(
    'Since it was last renewed; else from the date code on the board.',
    'It is mostly inferred: give it a wide ±.',
    { usual: [0, 6] },
  ),
  'plates.*.kind': how(
    'A thick flat body without pipes beneath is a chamber; pipes soldered to a sheet are a plate.',
    'Nickel hides copper.',
    { tool: 'by eye' },
  ),
  'plates.*.widthMm': how(
    'The sheet over the die, across the machine, without its spring arms.',
    'Arms to the screws carry no heat.',
    { usual: [25, 160] },
  ),
  'plates.*.lengthMm': how('The same, front to rear.', 'Arms to the screws carry no heat.', {
    usual: [25, 120],
  }),
  'plates.*.thicknessMm': how(
    'At a free edge of the sheet.',
    'With the pipe on it, it is both together.',
    { usual: [0.8, 4] },
  ),
  'plates.*.places.*.xMm': how(
    'From the plate’s left edge to the middle of the die.',
    'Seen from below left and right change.',
    { usual: [0, 160] },
  ),
  'plates.*.places.*.yMm': how(
    'From the plate’s rear edge to the middle of the die.',
    'Seen from below left and right change.',
    { usual: [0, 120] },
  ),
  'heatPipes.*.count': how(
    'Pipes alike in everything and side by side.',
    'Two that end in different stacks are two entries.',
    { usual: [1, 4] },
  ),
  'heatPipes.*.diameterMm': how(
    'Round, before pressing: at a round end; else width and thickness of the pressed part give it.',
    'A pressed pipe is wider than it was round.',
    { usual: [5, 10], drawing: 'pressed-pipe' },
  ),
  'heatPipes.*.flattenedMm': how(
    'Across the flat, where it is thinnest: mostly over the die. The jaws square to the pipe, hardly closed.',
    'Copper gives: pressing the jaws makes it thinner. The lacquer counts 0.05 mm.',
    { usual: [1.2, 4], drawing: 'pressed-pipe' },
  ),
  'heatPipes.*.flattenedWidthMm': how(
    'Along the flat, at the same place.',
    'Where it bends it is wider.',
    { usual: [7, 15], drawing: 'pressed-pipe' },
  ),
  'heatPipes.*.lengthMm': how(
    'Along its middle with a thread from end to end, through every bend.',
    'The straight way between its ends is too short. The sealed tip carries nothing: without it.',
    { tool: 'with a thread and a rule', usual: [80, 380], drawing: 'along-pipe' },
  ),
  'heatPipes.*.wick': how(
    'Only a cut shows it; sintered in nearly all notebooks.',
    'Do not guess from the outside.',
    { tool: 'by eye' },
  ),
  'heatPipes.*.tiltDeg': how(
    'Heated end above the cooled one is positive, as the machine stands.',
    'On a stand it tilts with the machine.',
    { usual: [-10, 10] },
  ),
  'heatPipes.*.bends': how('Every turn of more than some 20 degrees.', 'A long curve is one.', {
    usual: [0, 4],
    drawing: 'along-pipe',
  }),
  'heatPipes.*.along.*.fromMm': how(
    'From the pipe’s first end to where the part begins, along its middle.',
    'Both from the same end.',
    { tool: 'with a thread and a rule', usual: [0, 350], drawing: 'along-pipe' },
  ),
  'heatPipes.*.along.*.toMm': how(
    'From the pipe’s first end to where the part ends.',
    'Both from the same end.',
    { tool: 'with a thread and a rule', usual: [10, 380], drawing: 'along-pipe' },
  ),
  'heatPipes.*.along': how(
    'Every plate and stack that it touches, in order from one end to the other.',
    'Dies between two stacks carry far more than a stack at one end alone: the order counts most.',
    { tool: 'by eye', drawing: 'along-pipe' },
  ),
  'finStacks.*.widthMm': how(
    'Across the fins, from the first to the last: the face that the fan blows at.',
    'The frame around it is not counted.',
    { usual: [35, 130], drawing: 'stack' },
  ),
  'finStacks.*.heightMm': how(
    'Of a fin, from root to tip, without the pipe.',
    'The pipe on top adds its thickness.',
    { usual: [4, 14], drawing: 'stack' },
  ),
  'finStacks.*.depthMm': how(
    'The way of the air, from the edge at the fan to the edge at the vent.',
    'It is mistaken for the height. A blade of the calliper between two fins, not over the frame.',
    { usual: [8, 32], drawing: 'fin-pitch' },
  ),
  'finStacks.*.finCount': how(
    'Every fin, by a needle along the edge, or on a photo taken square to it.',
    'Counted by tens and multiplied it is off by several. From the pitch: width over pitch.',
    { usual: [25, 130], drawing: 'fin-pitch' },
  ),
  'finStacks.*.finThicknessMm': how(
    'Of one fin at its edge; else of ten sheets pressed together, over ten.',
    'A folded rim is twice as thick.',
    { usual: [0.1, 0.3], drawing: 'fin-pitch' },
  ),
  'finStacks.*.material': how(
    'A scratch at a hidden edge: red is copper.',
    'Coated copper looks black, nickel like aluminium.',
    { tool: 'by eye' },
  ),
  'finStacks.*.joined': how(
    'Pipes above alone, or above and below the fins.',
    'A cover sheet is no pipe.',
    { tool: 'by eye' },
  ),
  'finStacks.*.blockedShare': how(
    'Of the face, what a strip, frame or cable covers for good.',
    'Lint has a field of its own.',
    { usual: [0, 0.4] },
  ),
  'finStacks.*.lintShare': how(
    'Of the face at the fan, as it was found, before anything is cleaned.',
    'Seen from the vent it looks clean.',
    { usual: [0, 0.6] },
  ),
  'fans.*.impellerDiameterMm': how(
    'From blade tip to blade tip over the hub.',
    'The housing is 4 to 8 mm larger. An odd number of blades: twice the radius.',
    { usual: [35, 75], drawing: 'impeller' },
  ),
  'fans.*.bladeHeightMm': how(
    'Along the fan’s axis, of a blade.',
    'The housing’s height holds two gaps besides.',
    { usual: [4, 12], drawing: 'impeller' },
  ),
  'fans.*.minRpm': how(
    'The lowest speed at which it turns, in a log at light load.',
    'Zero is off, not the lowest.',
    { usual: [1200, 2600] },
  ),
  'fans.*.maxRpm': how(
    'The speed at which it stays under full load, or of the fan test.',
    'Printed speeds are of the bare fan.',
    { usual: [3500, 7500] },
  ),
  'fans.*.control': how(
    'Whether the fans go up and down together in a log.',
    'A little difference is not apart.',
    { tool: 'from a log of the machine' },
  ),
  'fans.*.curve.*.rpm': how(
    'The speed at which the curve holds.',
    'All points of one curve at one speed.',
    { usual: [2000, 7000] },
  ),
  'fans.*.curve.*.flowLps': how(
    'Air through the fan at that pressure.',
    'A sheet’s cubic feet a minute are converted: type “2.1 cfm”.',
    { usual: [0, 8] },
  ),
  'fans.*.curve.*.pressurePa': how(
    'Static pressure at that flow.',
    'Millimetres of water are about 9.8 Pa each.',
    { usual: [0, 400] },
  ),
  'vents.*.flow': how(
    'A thread or smoke shows whether air enters; beside no fan it is passive.',
    'With the lid closed a deck vent may be dead.',
    { tool: 'with a thread' },
  ),
  'vents.*.side': how(
    'Where it lies, seen as the machine stands.',
    'Seen from below left and right change.',
    { tool: 'by eye' },
  ),
  'vents.*.widthMm': how(
    'The field of slots or holes, its longer side.',
    'A pattern that goes on over closed metal ends where light comes through.',
    { usual: [20, 250], drawing: 'vent' },
  ),
  'vents.*.lengthMm': how(
    'The field of slots or holes, its shorter side.',
    'Holes that are closed from behind are no vent.',
    { usual: [5, 120], drawing: 'vent' },
  ),
  'vents.*.rimMm': how(
    'In the base: from the field’s rear edge to the rear edge of the base.',
    'Air under low feet comes this way; where it is put on the plan, its place there is taken.',
    { usual: [10, 100] },
  ),
  'vents.*.openShare': how(
    'Holes over field: for slots, width over pitch; for round holes, area over that of their cell.',
    'It looks more open than it is; round holes are seldom above one half.',
    { usual: [0.25, 0.75], drawing: 'open-share' },
  ),
  'vents.*.blockedShare': how(
    'Of its field, what a bay, strip or cable covers from behind.',
    'Held against light, a cover from behind shows dark.',
    { usual: [0, 0.7] },
  ),
  'vents.*.lintShare': how('Of its field, as it was found.', 'The mesh inside holds most of it.', {
    usual: [0, 0.5],
  }),
  'pads.*.thicknessMm': how('As it lies, pressed.', 'New it is thicker.', { usual: [0.5, 3] }),
  'pads.*.widthMm': how('The shorter side.', 'What hangs over carries nothing.', {
    usual: [5, 40],
  }),
  'pads.*.lengthMm': how('The longer side.', 'Often it lies under the controller only.', {
    usual: [5, 80],
  }),
  'pads.*.conductivityWmK': how('From the package.', 'Printed figures are high.', {
    usual: [1, 8],
  }),
  'pads.*.sourceW': how(
    'Of what it cools, from a log or its data sheet.',
    'At rest it gives far less.',
    { usual: [0.5, 6] },
  ),
  'strips.*.coversShare': how(
    'Of the face or vent that it lies on.',
    'A strip beside the fins may seal the duct: do not lift it before that is known.',
    { usual: [0.02, 0.4] },
  ),
  'strips.*.purpose': how(
    'What it does where it lies: closes a gap, shields, or holds a cable.',
    'Unknown stays where it is.',
    { tool: 'by eye' },
  ),
  'strips.*.state': how('As the machine runs now.', 'Both states can be computed side by side.', {
    tool: 'by eye',
  }),
  'noise.sweep.*.rpm.*': how(
    'Read from a log while the level is taken.',
    'Wait until the speed stands still.',
    { usual: [0, 7000] },
  ),
  'noise.sweep.*.dbA': how(
    'Half a minute’s mean, A-weighted, at the microphone’s place, background included.',
    'One’s own hand, a clock, a street: the background is taken at the same place.',
    { usual: [20, 55], drawing: 'microphone' },
  ),
  'noise.backgroundDbA': how(
    'The same, machine off, right before or after.',
    'Above the machine less 6 dB the result is a bound only.',
    { usual: [14, 32], drawing: 'microphone' },
  ),
  'noise.distanceM': how(
    'From the middle of the machine’s front edge to the microphone, at ear height.',
    'Twice as far is 6 dB less.',
    { tool: 'with a tape', usual: [0.25, 1], drawing: 'microphone' },
  ),
  'airway.places.*.xMm': how(
    'From the user’s left edge to its middle.',
    'Seen from below left and right change.',
    { usual: [0, 400] },
  ),
  'airway.places.*.yMm': how(
    'From the rear edge to its middle.',
    'From the rear, not from the front.',
    { usual: [0, 290] },
  ),
  'room.temperatureC': how(
    'A hand’s breadth from the intake, out of the exhaust, in the shade.',
    'A thermometer on the table reads the table.',
    { usual: [18, 28] },
  ),
  'room.altitudeM': how('From a map.', 'Feet are converted: type “3000 ft”.', { usual: [0, 1500] }),
  'room.surface': how('What it stands on in the run.', 'Cloth closes the gap under the base.', {
    tool: 'by eye',
  }),
  'room.lid': how('As it stands in the run.', 'Closed, vents in the deck are dead.', {
    tool: 'by eye',
  }),
};
