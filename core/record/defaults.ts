/** A figure used where the record has none: median, 5–95 % range, unit and where it comes from. */
export interface Default {
  value: number;
  low: number;
  high: number;
  unit: string;
  about: string;
  origin: string;
  /** A share between 0 and 1: drawn from a logit-normal distribution, else lognormal (normal where it may be zero). */
  share?: true;
}

const MEMORY = 'common practice, from memory';

function of(
  value: number,
  low: number,
  high: number,
  unit: string,
  about: string,
  origin = MEMORY,
): Default {
  return { value, low, high, unit, about, origin };
}

/** A convention, not drawn. */
function fixed(value: number, unit: string, about: string, origin = MEMORY): Default {
  return { value, low: value, high: value, unit, about, origin };
}

function shareOf(
  value: number,
  low: number,
  high: number,
  about: string,
  origin = MEMORY,
): Default {
  return { value, low, high, unit: '', about, origin, share: true };
}

/**
 * Every default and in-situ factor of the core, in one place. Keys are paths without part ids; a figure that is derived
 * from others (such as a wick that follows the pressed thickness) is a factor on that rule.
 */
export const DEFAULTS = {
  'room.temperatureC': of(23, 20, 26, '°C', 'room temperature'),
  'room.altitudeM': of(150, 0, 600, 'm', 'altitude'),
  'room.lidClosedDeckVentShare': shareOf(
    0.3,
    0.1,
    0.6,
    'open share left of deck vents under a closed lid',
  ),
  'room.lidClosedDeckShare': shareOf(0.5, 0.3, 0.8, 'heat the deck still loses under a closed lid'),
  'room.softGapShare': shareOf(
    0.2,
    0.05,
    0.5,
    'share of the rims of the base that soft ground leaves open',
  ),
  'room.deskBaseShare': shareOf(0.3, 0.15, 0.6, 'heat the base still loses on a desk'),
  'room.softBaseShare': shareOf(0.1, 0.03, 0.25, 'heat the base still loses on soft ground'),

  'shell.widthMm': of(355, 310, 400, 'mm', 'shell width'),
  'shell.depthMm': of(245, 215, 280, 'mm', 'shell depth'),
  'shell.footHeightMm': of(2.5, 1.5, 5, 'mm', 'height of the feet'),
  'shell.footCover': shareOf(0.08, 0.03, 0.2, 'share of a rim that feet close'),
  'shell.stripCover': shareOf(
    0.85,
    0.7,
    0.95,
    'share of a rim that a rubber strip along it closes',
  ),
  'shell.skinLimitC': of(
    48,
    45,
    52,
    '°C',
    'greatest skin temperature',
    'IEC 62368-1 touch limits, from memory',
  ),
  'shell.exhaustLimitC': of(80, 70, 90, '°C', 'greatest temperature of the air that leaves'),
  'shell.emissivity.painted': shareOf(
    0.9,
    0.85,
    0.95,
    'emissivity, painted',
    'Incropera et al., table A.11, from memory',
  ),
  'shell.emissivity.coated': shareOf(
    0.75,
    0.5,
    0.9,
    'emissivity, coated',
    'Incropera et al., table A.11, from memory',
  ),
  'shell.emissivity.bare': shareOf(
    0.12,
    0.05,
    0.3,
    'emissivity, bare metal',
    'Incropera et al., table A.11, from memory',
  ),
  'shell.conductivity.aluminium': of(150, 120, 190, 'W/mK', 'shell conductivity, aluminium'),
  'shell.conductivity.magnesium': of(70, 50, 95, 'W/mK', 'shell conductivity, magnesium'),
  'shell.conductivity.plastic': of(
    6,
    0.5,
    20,
    'W/mK',
    'shell conductivity, plastic with the foil usually glued inside',
  ),
  'shell.conductivity.mixed': of(30, 5, 90, 'W/mK', 'shell conductivity, mixed'),
  'shell.sheetMm.aluminium': of(1, 0.7, 1.4, 'mm', 'shell wall, aluminium'),
  'shell.sheetMm.magnesium': of(1, 0.7, 1.4, 'mm', 'shell wall, magnesium'),
  'shell.sheetMm.plastic': of(1.6, 1.2, 2.2, 'mm', 'shell wall, plastic'),
  'shell.sheetMm.mixed': of(1.2, 0.8, 1.8, 'mm', 'shell wall, mixed'),
  'shell.evenness.aluminium': shareOf(0.8, 0.6, 0.95, 'share of the shell that is warm, aluminium'),
  'shell.evenness.magnesium': shareOf(0.7, 0.5, 0.9, 'share of the shell that is warm, magnesium'),
  'shell.evenness.plastic': shareOf(0.5, 0.3, 0.7, 'share of the shell that is warm, plastic'),
  'shell.evenness.mixed': shareOf(0.6, 0.4, 0.8, 'share of the shell that is warm, mixed'),
  'shell.spotCoefficientWm2K': of(8, 5, 12, 'W/m²K', 'outside coefficient over a warm spot'),
  'shell.plateGapMm': of(2, 1, 4, 'mm', 'air gap between plates or stacks and the shell'),
  'shell.insideAirWm2K': of(
    8,
    3,
    16,
    'W/m²K',
    'inside of the shell to the air drawn past it, at 3 L/s; follows flow to the power 0.8',
  ),
  'shell.boardWK': of(0.08, 0.03, 0.2, 'W/K', 'each die through the board to the shell'),

  'power.restW': of(20, 10, 35, 'W', 'rest of the machine'),
  'power.restLidShare': shareOf(
    0.3,
    0.15,
    0.5,
    'share of the rest that leaves by the open lid: the display',
  ),
  'power.restAirShare': shareOf(
    0.5,
    0.2,
    0.8,
    'share of what is left of the rest that heats the intake air, fans on',
  ),
  'power.fanW': of(2, 1, 3, 'W', 'power of one fan at full speed'),

  'dies.maxJunctionC.cpu': of(97, 90, 105, '°C', 'junction limit, CPU'),
  'dies.maxJunctionC.gpu': of(87, 83, 95, '°C', 'junction limit, GPU'),
  'dies.shareOutside': shareOf(
    0.12,
    0.05,
    0.2,
    'regulators and memory: share of the watts outside the die',
  ),
  'dies.hotSpotFactor': of(1.8, 1.3, 2.4, '', 'hot spot, on die and interface resistance'),
  'dies.sensorGain.cpu': of(1, 0.95, 1.05, '', 'watts that a CPU draws over those that it reports'),
  'dies.sensorGain.gpu': of(1, 0.95, 1.05, '', 'watts that a GPU draws over those that it reports'),
  'dies.thicknessMm': of(0.78, 0.5, 0.8, 'mm', 'die thickness'),
  'dies.siliconWmK': of(
    110,
    95,
    130,
    'W/mK',
    'silicon near 80 °C',
    'Incropera et al., table A.2, from memory',
  ),
  'dies.interface.conductivityWmK.paste': of(5, 2, 9, 'W/mK', 'interface conductivity, paste'),
  'dies.interface.conductivityWmK.phase-change': of(
    6,
    3,
    8.5,
    'W/mK',
    'interface conductivity, phase-change',
  ),
  'dies.interface.conductivityWmK.graphite': of(
    18,
    8,
    35,
    'W/mK',
    'interface conductivity, graphite',
  ),
  'dies.interface.conductivityWmK.liquid-metal': of(
    35,
    18,
    73,
    'W/mK',
    'interface conductivity, liquid metal',
  ),
  'dies.interface.conductivityWmK.pad': of(4, 1.5, 9, 'W/mK', 'interface conductivity, pad'),
  'dies.interface.bondLineUm.paste': of(45, 20, 90, 'µm', 'bond line, paste'),
  'dies.interface.bondLineUm.phase-change': of(30, 15, 60, 'µm', 'bond line, phase-change'),
  'dies.interface.bondLineUm.graphite': of(150, 80, 250, 'µm', 'bond line, graphite'),
  'dies.interface.bondLineUm.liquid-metal': of(40, 20, 80, 'µm', 'bond line, liquid metal'),
  'dies.interface.bondLineUm.pad': of(500, 250, 1000, 'µm', 'bond line, pad'),
  'dies.interface.contactM2KW': of(
    3e-6,
    1e-6,
    8e-6,
    'm²K/W',
    'contact of the interface, both faces',
  ),
  'dies.interface.ageYears': of(1, 0.2, 4, 'years', 'years since the interface was renewed'),
  'dies.interface.ageingPerYear.paste': of(0.2, 0.05, 0.5, '1/year', 'growth of resistance, paste'),
  'dies.interface.ageingPerYear.phase-change': of(
    0.03,
    0.01,
    0.08,
    '1/year',
    'growth of resistance, phase-change',
  ),
  'dies.interface.ageingPerYear.graphite': of(
    0.02,
    0.005,
    0.05,
    '1/year',
    'growth of resistance, graphite',
  ),
  'dies.interface.ageingPerYear.liquid-metal': of(
    0.04,
    0.01,
    0.15,
    '1/year',
    'growth of resistance, liquid metal',
  ),
  'dies.interface.ageingPerYear.pad': of(0.05, 0.02, 0.12, '1/year', 'growth of resistance, pad'),

  'plates.thicknessMm': of(1.5, 0.8, 2.5, 'mm', 'plate thickness'),
  'plates.chamberThicknessMm': of(2, 1, 3.5, 'mm', 'vapor chamber thickness'),
  'plates.marginMm': of(13, 6, 20, 'mm', 'plate beyond the die on each side'),
  'plates.conductivity.copper-plate': of(
    385,
    340,
    398,
    'W/mK',
    'plate conductivity, copper',
    'Incropera et al., table A.1, from memory',
  ),
  'plates.conductivity.aluminium-plate': of(
    190,
    150,
    225,
    'W/mK',
    'plate conductivity, aluminium',
    'Incropera et al., table A.1, from memory',
  ),
  'plates.chamberFluxWcm2': of(
    120,
    60,
    250,
    'W/cm²',
    'heat flux at which a chamber’s wick boils dry',
  ),
  'plates.chamberLimitFactor': of(1, 0.6, 1.6, '', 'what a chamber’s wick carries over its model'),

  'heatPipes.pressedShare': shareOf(0.42, 0.25, 0.7, 'pressed thickness over diameter'),
  'heatPipes.lengthFactor': of(
    1.15,
    1,
    1.5,
    '',
    'pipe length over the length of the parts it touches',
  ),
  'heatPipes.wallFactor': of(
    1,
    0.6,
    1.6,
    '',
    'wall thickness over its rule, 10 % of the thickness within 0.15–0.3 mm',
  ),
  'heatPipes.wickFactor': of(
    1,
    0.65,
    1.5,
    '',
    'wick thickness over its rule by kind and thickness',
  ),
  // of what only limits follow from, the spread is in the limit factor
  'heatPipes.permeability.sintered': fixed(4.5e-11, 'm²', 'wick permeability, sintered'),
  'heatPipes.permeability.grooved': fixed(
    5e-10,
    'm²',
    'wick permeability, grooved, over whole layer and with the vapor blowing over it',
  ),
  'heatPipes.permeability.mesh': fixed(6e-11, 'm²', 'wick permeability, mesh'),
  'heatPipes.poreUm.sintered': fixed(50, 'µm', 'effective pore radius, sintered'),
  'heatPipes.poreUm.grooved': fixed(180, 'µm', 'effective pore radius, grooved'),
  'heatPipes.poreUm.mesh': fixed(64, 'µm', 'effective pore radius, mesh'),
  'heatPipes.wickWmK.sintered': of(40, 20, 60, 'W/mK', 'wet wick conductivity, sintered'),
  'heatPipes.wickWmK.grooved': of(12, 5, 25, 'W/mK', 'wet wick conductivity, grooved'),
  'heatPipes.wickWmK.mesh': of(2, 1, 4, 'W/mK', 'wet wick conductivity, mesh'),
  'heatPipes.evaporatorMarginMm': of(4, 2, 8, 'mm', 'evaporator beyond the die on each side'),
  'heatPipes.bendLoss': of(0.02, 0.005, 0.05, '', 'reach lost to each bend'),
  'heatPipes.nucleationUm': of(
    3,
    2,
    4.5,
    'µm',
    'radius of the bubbles that start boiling in a wick',
  ),
  'heatPipes.solderM2KW': of(6e-6, 2e-6, 2e-5, 'm²K/W', 'solder joint of a pipe on plate or fins'),
  'heatPipes.limitFactor.sintered': of(1, 0.76, 1.31, '', 'pipe limits over their model, sintered'),
  'heatPipes.limitFactor.grooved': of(1, 0.65, 1.55, '', 'pipe limits over their model, grooved'),
  'heatPipes.limitFactor.mesh': of(1, 0.65, 1.55, '', 'pipe limits over their model, mesh'),

  'finStacks.finThicknessMm': of(0.15, 0.08, 0.25, 'mm', 'fin thickness'),
  'finStacks.conductivity.copper': of(
    385,
    340,
    398,
    'W/mK',
    'fin conductivity, copper',
    'Incropera et al., table A.1, from memory',
  ),
  'finStacks.conductivity.aluminium': of(
    200,
    150,
    230,
    'W/mK',
    'fin conductivity, aluminium',
    'Incropera et al., table A.1, from memory',
  ),
  'finStacks.uaFactor': shareOf(0.7, 0.5, 0.9, 'uneven flow and fin joints, on UA'),
  'finStacks.nusseltFactor': of(1, 0.9, 1.1, '', 'model form of the Nusselt number'),
  'finStacks.exhaustOpenShare': shareOf(
    0.6,
    0.4,
    0.8,
    'opening behind a stack for which no vent is recorded',
  ),
  'finStacks.soldered.platesM2KW': of(
    1e-5,
    3e-6,
    3e-5,
    'm²K/W',
    'joint of a stack that sits on a plate or chamber',
  ),

  'fans.bladeHeightShare': shareOf(0.13, 0.08, 0.2, 'blade height over impeller diameter'),
  'fans.tipSpeedMs': of(15, 12, 19, 'm/s', 'tip speed at full duty'),
  'fans.minDuty': shareOf(0.35, 0.2, 0.5, 'least speed over greatest'),
  'fans.psi': of(0.9, 0.7, 1.1, '', 'installed pressure coefficient'),
  'fans.phi': of(0.1, 0.07, 0.14, '', 'flow coefficient'),
  'fans.curveExponent': of(1.5, 1, 2.2, '', 'shape of the fan curve'),
  'fans.leakage': shareOf(0.05, 0.01, 0.15, 'air lost between fan and fins'),
  'fans.recirculation': shareOf(0.05, 0.005, 0.15, 'warm air drawn in again'),
  'fans.intakeOpenShare': shareOf(
    0.5,
    0.3,
    0.7,
    'open share of the intake over a fan for which no vent is recorded',
  ),

  'vents.openShare': shareOf(0.5, 0.3, 0.7, 'open share of a vent'),
  'vents.meshOpenShare': shareOf(0.6, 0.45, 0.75, 'open share of a dust mesh'),
  'vents.rimMm': of(40, 15, 90, 'mm', 'from a vent in the base to its rear rim'),
  'vents.gapTurnLoss': of(1, 0.6, 1.6, '', 'loss of the turn from the gap into a vent'),
  'vents.gapLoss': of(1.5, 1, 2.5, '', 'loss coefficient of the way in under the rim of the base'),

  'strips.sealLeakage': shareOf(
    0.1,
    0.03,
    0.25,
    'air lost before the fins once a strip that sealed the duct is gone',
  ),

  'pads.sideMm': of(20, 12, 35, 'mm', 'side of a pad'),
  'pads.thicknessMm': of(1, 0.5, 2, 'mm', 'thickness of a pad'),
  'pads.conductivityWmK': of(3, 1, 7, 'W/mK', 'conductivity of a pad'),
  'pads.sourceW.storage': of(2.5, 0.8, 6, 'W', 'storage under load'),
  'pads.sourceW.wireless': of(1, 0.4, 2, 'W', 'wireless card under load'),
  'pads.sourceW.memory': of(3, 1, 6, 'W', 'memory under load'),

  'shell.massKg': of(2.1, 1.5, 2.8, 'kg', 'mass, for how fast the machine warms up'),
  'shell.warmMassShare': shareOf(0.5, 0.3, 0.7, 'share of the mass that warms up with the shell'),
  'shell.specificHeatJkgK': of(800, 650, 950, 'J/kgK', 'specific heat of shell, board and battery'),
  'upkeep.lintPerThousandHours': shareOf(
    0.12,
    0.03,
    0.35,
    'share of the open face of fins and mesh that a thousand hours of use fill with lint',
  ),
  'upkeep.hoursPerYear': of(1500, 400, 4000, 'h', 'hours of use in a year'),

  'settings.cpuShortWindowS': of(
    28,
    20,
    60,
    's',
    'window of the running average behind the short-term limit',
  ),
  'settings.fanStartC': of(45, 35, 60, '°C', 'junction at which fans leave their least speed'),
  'settings.fanFullBelowLimitK': of(
    7,
    3,
    15,
    'K',
    'fans are at full speed this far below the junction limit',
  ),
  'settings.fanHysteresisK': of(
    4,
    2,
    8,
    'K',
    'fans slow down only this far below where they sped up',
  ),
  'settings.skinSpanK': of(8, 4, 15, 'K', 'skin above its limit at which firmware cuts all watts'),
  'settings.skinIntegralS': of(
    60,
    20,
    180,
    's',
    'time in which firmware works off a lasting excess',
  ),
  'settings.fanDutyPerS': of(
    0.05,
    0.02,
    0.2,
    '1/s',
    'how fast fans change speed, share of full speed',
  ),

  'noise.sweepOffsetDb': of(0, -1.6, 1.6, 'dB', 'microphone and place, common to a whole sweep'),
  'noise.referenceDbA': of(45, 41.7, 48.3, 'dB(A)', 'one 65 × 9 mm fan at 17 m/s tip speed, 0.5 m'),

  'count.cpuClassW': of(45, 15, 65, 'W', 'quick count: class of the CPU'),
  'count.gpuClassW': of(85, 40, 150, 'W', 'quick count: class of the GPU'),
  'count.cpuDieMm2': of(
    150,
    95,
    240,
    'mm²',
    'quick count: CPU die of a 45 W class; others follow the square root of their class',
  ),
  'count.gpuDieMm2': of(
    285,
    180,
    450,
    'mm²',
    'quick count: GPU die of a 90 W class; others follow the square root of their class',
  ),
  'count.finPitchMm': of(1.1, 0.85, 1.5, 'mm', 'quick count: width of a stack over its fins'),
  'count.stackDepthMm': of(22, 13, 34, 'mm', 'quick count: depth of a fin stack'),
  'count.stackOverFanHeight': of(
    1.05,
    0.85,
    1.3,
    '',
    'quick count: height of a fin stack over that of the blades',
  ),
  'count.pipeDiameterMm': of(7, 6, 8, 'mm', 'quick count: diameter of a heat pipe'),
  'count.chamberSideMm': of(130, 90, 190, 'mm', 'quick count: side of a vapor chamber with pipes'),
  'count.ventOverFan': of(1.15, 0.8, 1.6, '', 'quick count: side of a vent over the impeller'),
  'count.coveredShare': shareOf(
    0.85,
    0.6,
    0.97,
    'quick count: share of a covered vent that lets no air through',
  ),
} as const satisfies Record<string, Default>;

export type DefaultKey = keyof typeof DEFAULTS;
