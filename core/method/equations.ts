/** An equation of the chain as the Method view and docs/method.md show it. */
export interface Equation {
  /** What it gives, in field terms. */
  title: string;
  tex: string;
  /** Symbols with units, and how it is used here. */
  where: string;
  /** Within which it was published or checked. */
  range: string;
  source: string;
  /** File that holds it. */
  file: string;
}

export interface MethodChapter {
  id: string;
  title: string;
  /** Plain words before the equations. */
  intro: string;
  equations: readonly Equation[];
}

/**
 * The method from a record to sustained watts, chapter by chapter in the order of the chain. Kept here as data, so that page
 * and document cannot differ.
 */
export const METHOD: readonly MethodChapter[] = [
  {
    id: 'air',
    title: 'Air',
    intro: 'Dry air as an ideal gas; pressure from altitude.',
    equations: [
      {
        title: 'Density, viscosity, conductivity',
        tex: String.raw`\rho = \frac{p}{R T},\quad \mu = \frac{1.458\cdot10^{-6}\,T^{3/2}}{T + 110.4},\quad k = \frac{2.64638\cdot10^{-3}\,T^{3/2}}{T + 245.4\cdot 10^{-12/T}}`,
        where:
          'T in K, p in Pa, R = 287.05287 J/kgK; heat capacity by a parabola through handbook points.',
        range: '−20 to 120 °C; beyond it the result says so',
        source: 'ISO 2533; Incropera et al., table A.4',
        file: 'core/fluids/air.ts',
      },
      {
        title: 'Pressure at altitude',
        tex: String.raw`p = 101325\left(\frac{288.15 - 0.0065\,H}{288.15}\right)^{5.25588}`,
        where: 'H geopotential altitude in m.',
        range: '−1000 to 11 000 m',
        source: 'ISO 2533',
        file: 'core/fluids/standardAtmosphere.ts',
      },
    ],
  },
  {
    id: 'airflow',
    title: 'Fans and air paths',
    intro:
      'Room → gap under the base → intake vents → plenum → fans → plenum → fin stacks → exhaust vents → room. Fans that share a vent share its plenum; fans and stacks that are linked share theirs. The balance of flows is the minimum of a convex function, so the operating point is always found, also with a fan stopped.',
    equations: [
      {
        title: 'Fan curve',
        tex: String.raw`\Delta p = \psi\,\tfrac12\rho U^2\left[1 - \left(\frac{Q}{\varphi\,\pi D b U}\right)^{n}\right],\quad U = \frac{\pi D N}{60}`,
        where:
          'D impeller diameter and b blade height in m, N in rpm. Datasheet or measured points take its place, brought to one speed by Q ∝ N and Δp ∝ N².',
        range: 'installed coefficients, not those of a wind tunnel',
        source: 'similarity laws of AMCA 201 and ISO 5801; shape common practice',
        file: 'core/airflow/fanCurve.ts',
      },
      {
        title: 'Grilles, mesh, gap under the base',
        tex: String.raw`\zeta_{in} = \frac{(1.707 - f)^2}{f^2},\quad \zeta_{out} = \frac{(1 + 0.707\sqrt{1-f})^2}{f^2},\quad \zeta_{mesh} = 1.3(1-f) + \left(\tfrac1f - 1\right)^2`,
        where:
          'f open share; Δp = ζ·½ρv² on the face. Lint acts as a screen over the share it covers.',
        range: '0 < f ≤ 1',
        source: 'Idelchik, Handbook of Hydraulic Resistance',
        file: 'core/airflow/openings.ts',
      },
      {
        title: 'Way under the base',
        tex: String.raw`\Delta p = \frac{12\,\mu\,Q}{h^3 S} + \zeta_t\,\tfrac12\rho\left(\frac{Q}{p\,h}\right)^2 + \zeta_r\,\tfrac12\rho\left(\frac{Q_{all}}{l\,h}\right)^2,\quad S = \sum o\,\frac{2}{\ln(1 + 2L/f)}`,
        where:
          'h height of the feet; for each rim o what feet, rubber strips and soft ground leave open, L the way to the vent, f the vent’s edge that faces it; p the vent’s edge, l the open length of the rims.',
        range: 'laminar in the gap; shape within 25 % of plane potential flow',
        source: 'Hele-Shaw flow; Idelchik',
        file: 'core/airflow/baseGap.ts',
      },
      {
        title: 'Friction between fins',
        tex: String.raw`f\,\mathrm{Re}_{\sqrt A} = \sqrt{\left(\frac{3.44}{\sqrt{z^+}}\right)^2 + (f\,\mathrm{Re}_{fd})^2},\quad f_{turb} = 0.0791\,\mathrm{Re}^{-1/4}`,
        where:
          'z⁺ = L/(√A·Re_√A); fully developed value of the exact duct; eighth-power mean with the turbulent one.',
        range: 'Re up to 100 000; beyond it the result says so',
        source: 'Muzychka & Yovanovich 2009; Shah & London 1978; Blasius',
        file: 'core/airflow/rectangularDuct.ts',
      },
    ],
  },
  {
    id: 'fins',
    title: 'Fins to air',
    intro:
      'Mean Nusselt number of simultaneously developing flow, fin efficiency, and the piece of the stack that each pipe heats, one behind the other in the air.',
    equations: [
      {
        title: 'Heat transfer between fins',
        tex: String.raw`\mathrm{Nu}_{\sqrt A} = \left[\left(\frac{2 f(\mathrm{Pr})}{\sqrt{z^*}}\right)^m + \left(\left(0.6135\left(\frac{f\,\mathrm{Re}}{z^*}\right)^{1/3}\right)^5 + \mathrm{Nu}_{fd}^5\right)^{m/5}\right]^{1/m}`,
        where:
          'z* = L/(√A·Re_√A·Pr), m = 2.27 + 1.65·Pr^⅓. Above Re 4000 Gnielinski, straight between from 2300.',
        range: 'laminar to 2300, turbulent from 4000',
        source: 'Muzychka & Yovanovich 2004; Gnielinski 1976 and 2013',
        file: 'core/airflow/rectangularDuct.ts',
      },
      {
        title: 'Fin efficiency',
        tex: String.raw`\eta = \frac{\tanh mL}{mL},\quad m = \sqrt{\frac{2h}{k t}}`,
        where:
          'Along the height from the joint; where the pipe is narrower than the fin is deep, two-dimensional conduction from the contact instead, by cosine series.',
        range: 'thin straight fins',
        source: 'Incropera et al., ch. 3',
        file: 'core/conduction/fin.ts',
      },
      {
        title: 'A pipe’s piece of the stack',
        tex: String.raw`Q_k = \varepsilon_k C\,(T_k - T_{air,k}),\quad \varepsilon_k = 1 - e^{-s_k UA/C},\quad T_{air,k+1} = T_{air,k} + \varepsilon_k (T_k - T_{air,k})`,
        where:
          's_k share of the stack under pipe k, C heat capacity rate in W/K. A share of what leaves comes back to the intake.',
        range: 'one wall temperature per piece',
        source: 'Kays & London; Incropera et al., ch. 11',
        file: 'core/network/steadyState.ts',
      },
    ],
  },
  {
    id: 'dies',
    title: 'Dies, interface material, plates',
    intro:
      'One-dimensional through die and interface, with a hot-spot factor where the sensor reads the hot spot; then spreading in the plate.',
    equations: [
      {
        title: 'Interface material',
        tex: String.raw`R = \frac{1}{A}\left(\frac{t}{k}(1 + r\,y) + c\right)`,
        where:
          't bond line, k conductivity, y years since renewal, r growth a year (at most fourfold), c contact of both faces in m²K/W.',
        range: 'common practice for the ageing',
        source: 'one-dimensional conduction',
        file: 'core/conduction/interfaceMaterial.ts',
      },
      {
        title: 'Spreading under the dies of a plate',
        tex: String.raw`\bar\theta_i = \sum_j q_j \Big[\tfrac{t}{kab} + \sum_m \tfrac{2\,\bar c_{im}\bar c_{jm}}{abk\lambda_m\varphi(\lambda_m)} + \sum_n \cdots + \sum_{m,n} \tfrac{4\,\bar c_{im}\bar c_{jm}\bar d_{in}\bar d_{jn}}{abk\beta\varphi(\beta)}\Big]`,
        where:
          'c̄ and d̄ are means of cos λx and cos δy over a source; temperatures above the mean of the cooled side, which is as long as the pipes and as wide as they lie over the dies and their margin, no narrower than the dies.',
        range:
          'rectangular plates; five waves across the smallest die; within 10 % of three-dimensional conduction where pipes are as wide as the dies',
        source: 'Muzychka, Culham & Yovanovich 2003',
        file: 'core/conduction/plateSpreading.ts',
      },
    ],
  },
  {
    id: 'pipes',
    title: 'Heat pipes',
    intro:
      'Solder, wall and wet wick under each contact, one vapor temperature. Limits follow from the axial heat profile between the parts in their order along the pipe: fins at both ends quarter the transport of a pipe with one finned end. Wall and wick follow the pressed thickness, so that a vapor gap stays open. Limits are taken at the vapor that the pipe has once the first temperature limit is reached: a pipe whose cold, thin vapor carries little stalls, warms up and then carries. First dry-out is reported.',
    equations: [
      {
        title: 'Saturated water',
        tex: String.raw`\ln\frac{p}{p_c} = \frac{T_c}{T}\sum_i a_i\,\tau^{n_i},\quad h_{fg} = T\left(\tfrac{1}{\rho_v} - \tfrac{1}{\rho_l}\right)\frac{dp}{dT},\quad \tau = 1 - \tfrac{T}{T_c}`,
        where:
          'Densities by their own series; surface tension, liquid viscosity and conductivity by their formulations.',
        range: '10 to 150 °C; beyond it the end value and a note',
        source: 'IAPWS SR1-86(1992), R1-76, R12-08, SR6-08',
        file: 'core/fluids/water.ts',
      },
      {
        title: 'Capillary limit',
        tex: String.raw`\frac{2\sigma}{r} - \rho_l g (d\cos\beta + L|\sin\beta|) = (F_l + F_v)\;\operatorname*{range}_x \int_0^x Q\,dx'`,
        where:
          'F_l = μ_l/(K A_w ρ_l h_fg), F_v = C μ_v/(2 D_h² A_v ρ_v h_fg), C from 64 (round) to 96 (slot). Each bend takes a share.',
        range: 'laminar vapor; beyond it the result says so',
        source: 'Chi 1976; Reay, Kew & McGlen',
        file: 'core/pipes/capillaryLimit.ts',
      },
      {
        title: 'Boiling, entrainment, sonic, viscous limits',
        tex: String.raw`q''_b = \frac{k_w}{t_w}\frac{2\sigma T\,(1/r_n - 1/r)}{h_{fg}\rho_v},\;\; Q_e = A_v h_{fg}\sqrt{\frac{\sigma\rho_v}{2r}},\;\; Q_s = A_v\rho_v h_{fg}\sqrt{\frac{\gamma R T}{2(\gamma+1)}},\;\; \operatorname{range}\!\int\! Q\,dx = \frac{D_h^2 A_v\rho_v p\,h_{fg}}{C\mu_v}`,
        where: 'r_n radius of the bubbles that start boiling, r effective pore radius.',
        range: 'saturated water, 10 to 150 °C',
        source: 'Chi 1976; Busse 1973; Faghri 1995',
        file: 'core/pipes/pipeLimits.ts',
      },
    ],
  },
  {
    id: 'chamber',
    title: 'Vapor chamber',
    intro: 'Wick under each die, vapor at one temperature, wick and wall above.',
    equations: [
      {
        title: 'Dry-out under a die',
        tex: String.raw`Q = \frac{2\sigma}{r} \Big/ S\left(\frac{\mu_l}{2\pi\rho_l h_{fg} K t} + \frac{6\mu_v}{\pi\rho_v h_{fg} g^3}\right)`,
        where:
          'S shape of the flow from the whole outline to the die where it lies (between discs ln(b/a) and a little more), t wick thickness, g height of the vapor space; besides a heat flux at which the wick boils dry.',
        range:
          'laminar flow of liquid and vapor, condensing evenly over a rectangular outline; the vapor’s own drop up to 1 K, noted beyond',
        source: 'Darcy’s law; Reay, Kew & McGlen',
        file: 'core/pipes/chamberFlowShape.ts',
      },
      {
        title: 'Several dies on one chamber',
        tex: String.raw`\sum_j Q_j \frac{p_j(c) - p_j(i)}{S_i} = Q_i^{\mathrm{alone}}`,
        where:
          'Die i dries out where the flows to all dies together take as much pressure between the place c, where it is highest, and its middle as its wick can pump; p_j the liquid’s pressure per watt of die j, S_i and Q_i^alone as above.',
        range: 'as above; boiling counts the die’s own watts',
        source: 'superposition of Darcy flow',
        file: 'core/pipes/chamberFlow.ts',
      },
    ],
  },
  {
    id: 'shell',
    title: 'Shell and skin',
    intro:
      'A weak way beside the main one: plates and board → shell → room. Air drawn through the machine cools the shell from inside.',
    equations: [
      {
        title: 'Natural convection and radiation',
        tex: String.raw`\mathrm{Nu}_{up} = 0.54\,\mathrm{Ra}^{1/4},\quad \mathrm{Nu}_{down} = 0.27\,\mathrm{Ra}^{1/4},\quad h_r = \epsilon\sigma(T^2 + T_\infty^2)(T + T_\infty)`,
        where:
          'Length: area over perimeter. Desk, soft ground and a closed lid leave a share of it.',
        range:
          'Ra from 10⁴ to 10⁹ (facing up from 10⁷: 0.15 Ra^⅓); noted outside where the shell carries over 5 % of the heat',
        source: 'Incropera et al., ch. 9; Stefan–Boltzmann',
        file: 'core/conduction/shell.ts',
      },
      {
        title: 'Skin over a plate',
        tex: String.raw`G = hA + 2\pi a\,k t\,m\,\frac{K_1(ma)}{K_0(ma)},\quad m = \sqrt{\frac{h}{kt}}`,
        where:
          'An isothermal disc in a wide thin sheet; a its radius, k and t of the shell’s wall.',
        range: 'spot up to a quarter of the shell, noted beyond',
        source: 'annular fin of infinite extent, Incropera et al., ch. 3',
        file: 'core/conduction/skinSpot.ts',
      },
    ],
  },
  {
    id: 'noise',
    title: 'Noise',
    intro:
      'The level is that of the machine alone at the lab’s position. A measured sweep takes the place of the computed levels.',
    equations: [
      {
        title: 'Level of fans',
        tex: String.raw`L = 10\log_{10}\sum_i 10^{L_i/10} - 20\log_{10}\frac{r}{0.5},\quad L_i = L_0 + 50\log_{10}\frac{U_i}{17} + 10\log_{10}\frac{D_i b_i}{65\cdot 9}`,
        where: 'U tip speed in m/s, D and b in mm, r in m.',
        range: 'common practice',
        source: 'fan sound laws',
        file: 'core/sound/machineLevel.ts',
      },
      {
        title: 'Background',
        tex: String.raw`K_1 = -10\log_{10}\left(1 - 10^{-0.1\,\Delta L}\right)`,
        where: 'None above 15 dB; below 6 dB capped at 1.3 dB and an upper bound.',
        range: 'ΔL from 6 to 15 dB',
        source: 'ISO 3744',
        file: 'core/sound/background.ts',
      },
    ],
  },
  {
    id: 'envelope',
    title: 'Network and envelope',
    intro:
      'For given fan speeds and properties the machine is a linear network, factored once for three sources. Every limit is then a half-plane in the (CPU, GPU) plane and the region they leave is the envelope. Corners are solved at their own properties and inserted until no edge is more than 0.3 % off. carry(cap) is the best of all fan states up to the cap; fans controlled apart get the best split.',
    equations: [
      {
        title: 'Superposition',
        tex: String.raw`T = T_0 + R_{cpu}P_{cpu} + R_{gpu}P_{gpu} \;\Rightarrow\; R_{cpu}P_{cpu} + R_{gpu}P_{gpu} \le T_{max} - T_0`,
        where: 'Properties are taken where the ray leaves the region, until the watts stand still.',
        range: 'at converged properties',
        source: 'nodal analysis',
        file: 'core/envelope/boundary.ts',
      },
      {
        title: 'Adapter',
        tex: String.raw`(P_{cpu} + P_{gpu})(1 + s) + P_{rest} + P_{fans} \le P_{adapter}`,
        where:
          's losses that the reported watts leave out. What the machine does as configured is the envelope cut by firmware and adapter.',
        range: 'on mains',
        source: 'energy balance',
        file: 'core/case/configuration.ts',
      },
      {
        title: 'What the firmware really runs',
        tex: String.raw`(P_c, P_g) = \begin{cases} s\,(\rho_c, \rho_g) & \text{until a die stands at its own limit} \\ (L_c,\; t) & \text{then the other alone} \end{cases}`,
        where:
          'ρ the setting’s CPU to GPU ratio (1 to 1 without one, or as chosen), L its limits, the later ones where there are any; t goes on to the other die’s own limit, the adapter’s or the cooling’s. One definition for the ladder, the envelope’s rules, the time view, JSON and CSV.',
        range: 'both dies loaded',
        source: 'record format; agrees with the time view once that is steady',
        file: 'core/case/setTogether.ts',
      },
    ],
  },
  {
    id: 'time',
    title: 'Time and firmware',
    intro:
      'Firmware samples temperatures, sets watts and fans, and holds them for half a second. Between samples the network is linear and its step exact.',
    equations: [
      {
        title: 'One step',
        tex: String.raw`C\,\dot x = -G x + b,\qquad \begin{pmatrix} E & F \\ 0 & I \end{pmatrix} = \exp\begin{pmatrix} -C^{-1}G\,\Delta t & C^{-1}b\,\Delta t \\ 0 & 0 \end{pmatrix},\qquad x' = E x + F \begin{pmatrix} 1 \\ P_{cpu} \\ P_{gpu}\end{pmatrix}`,
        where:
          'C heat capacity of each node from its volume, x rise over the room; E and F are made once for each level of fan duty.',
        range: 'any step; properties at the steady state of each duty',
        source: 'Van Loan 1978; Moler & Van Loan 2003',
        file: 'core/transient/propagator.ts',
      },
      {
        title: 'Running average of power',
        tex: String.raw`a' = a\,e^{-\Delta t/\tau} + P\,(1 - e^{-\Delta t/\tau}),\qquad t_{short} = -\tau \ln\left(1 - \frac{P_{sustained}}{P_{short}}\right)`,
        where:
          'The processor draws up to its short-term limit as long as a stays below the sustained one; junctions and the adapter cut earlier.',
        range: 'τ about 28 s',
        source: 'common practice',
        file: 'core/transient/runningAverage.ts',
      },
    ],
  },
  {
    id: 'runs',
    title: 'Runs and logs',
    intro:
      'A log is cut where its powers change, found exactly by a penalised search. What a stretch was (idle, short-term, sustained, later, cooling down) follows from its powers, its temperatures say whether it settled. Over the steady window means are taken with errors that know that samples hang on each other; levels are means of energy with the background taken off. Several logs are laid beside each other by their clocks, or by what both saw. The sweep of the fans comes out of every stretch over which no speed moved; the firmware’s own figures out of stretches that no junction held.',
    equations: [
      {
        title: 'Change points',
        tex: String.raw`\min_{K,\,\tau}\; \sum_{k=0}^{K} C(y_{\tau_k+1 \dots \tau_{k+1}}) + \beta K`,
        where:
          'C what a stretch lies from its own mean, in its noise; β what a cut must be worth. Pruning leaves out only cuts that can never be the best.',
        range: 'exact; equals the plain dynamic programme in tests',
        source: 'Killick, Fearnhead & Eckley 2012',
        file: 'core/logs/changePoints.ts',
      },
      {
        title: 'Error of a mean',
        tex: String.raw`se = s\,\sqrt{\frac{1 + 2\sum_k \rho_k}{n}}`,
        where: 'ρ autocorrelation at lag k, summed up to the first pair that is not positive.',
        range: 'samples evenly spaced',
        source: 'NIST/SEMATECH e-Handbook; initial positive sequence',
        file: 'core/logs/seriesStats.ts',
      },
      {
        title: 'Window of the short-term limit',
        tex: String.raw`\tau = \frac{t}{\ln\dfrac{P_{short} - a_0}{P_{short} - P_{sustained}}}`,
        where: 't how long the short-term limit was held, a₀ the average before the load.',
        range: 'where no junction held the die before or after',
        source: 'the running average that firmware keeps; common practice',
        file: 'core/runs/firmwareSeen.ts',
      },
      {
        title: 'Time weightings of a level',
        tex: String.raw`p_{F,S}(t) = \int_{-\infty}^{t} p_A^2(u)\,e^{-(t-u)/\tau}\,\frac{du}{\tau}`,
        where: 'τ = 125 ms fast, 1 s slow; p_A weighted bin by bin.',
        range: 'live meter; recordings as energy means',
        source: 'IEC 61672-1',
        file: 'core/sound/levelWatch.ts',
      },
      {
        title: 'Tone to noise',
        tex: String.raw`\Delta L_T = 10\log_{10}\frac{W_t}{W_n},\quad \Delta f_c = 25 + 75\left(1 + 1.4\left(\tfrac{f}{1000}\right)^2\right)^{0.69}`,
        where:
          'W power of the tone and of the noise in its critical band; prominent from 8 dB at 1 kHz and above, more below.',
        range: '89 Hz to 11.2 kHz',
        source: 'ECMA-418-1',
        file: 'core/sound/tones.ts',
      },
    ],
  },
  {
    id: 'calibration',
    title: 'Calibration',
    intro:
      'Steady runs of the bench fit the multipliers that a calculation cannot know: interface, heat exchanger, hot spot, airflow, recirculation, joints, shell, noise and the gain of the power sensors. One run is enough to begin with: each multiplier starts from its default’s range, and what the runs do not tell stays there. Junctions, exhaust air, surfaces of fin blocks and pipes, skin, level, wall power, air flow and “it held for so long” are readings. A multiplier is determined when its deviation is at most half of the prior’s; of those that are not, combinations that are told are named. A run or reading that contradicts the others is weighed against them and named; where nothing explains the runs within their ±, that is said and every deviation widened. What may be otherwise than was recorded (a fan that stands still, a power sensor that is off, another interface) is tried and said in words.',
    equations: [
      {
        title: 'Most likely multipliers',
        tex: String.raw`\min_z\; \sum_i \left(\frac{y_i - f_i(z)}{\sigma_i}\right)^2 + \sum_j z_j^2`,
        where:
          'y readings, f what the core foretells, σ the reading’s ±, z_j the place of a multiplier in its own prior, in standard deviations. A bound that is kept adds nothing.',
        range: 'one run with one reading at least',
        source: 'Gelman et al., Bayesian Data Analysis; Marquardt 1963; Broyden 1965 (from memory)',
        file: 'core/calibration/findMode.ts',
      },
      {
        title: 'What is still possible',
        tex: String.raw`p(z) \propto \exp\left(-\tfrac12 \sum_i \left(\frac{y_i - f_i(z)}{\sigma_i}\right)^2 - \tfrac12 \sum_j z_j^2\right)`,
        where:
          'Independent draws: what the readings do not tell comes straight from the prior, what they tell is solved for, and each draw has the weight that makes the distribution exact. Ranges, deviations and what is foretold come from 400 draws, worth at least 200; how many is told.',
        range: 'seeded',
        source:
          'Bardsley, Solonen, Haario & Laine 2014; Bardsley, Cui, Marzouk & Wang 2020 (from memory)',
        file: 'core/calibration/randomiseThenOptimise.ts',
      },
      {
        title: 'Contradictions',
        tex: String.raw`p(y) = \sum_h p(h) \int p(y \mid z, h)\, p(z)\, dz`,
        where:
          'h an account of the readings: all of them good, or a run (one in twenty) or a single instrument (one in fifty) off by ten of its deviations. Draws come from all accounts by how likely each is after the readings; what is bad with more than even chance is named.',
        range:
          'at most a quarter of the readings and fewer than half of the runs, but one of either may always be',
        source:
          'Box & Tiao, Biometrika 55 (1968) (from memory); the shares are common practice, no source',
        file: 'core/calibration/explanations.ts',
      },
    ],
  },
  {
    id: 'uncertainty',
    title: 'Uncertainty',
    intro:
      'Every figure is drawn within its ±; unset, measured 1 % (lengths 0.1 mm), label 2 %, photo 4 % with one scale for all lengths of a photo, estimated 20 %, assumed the default’s range. Ranges are 5–95 % intervals: lognormal on both sides of the median, shares so in their odds, normal for temperatures and levels. Each draw takes the best fan state of its own at or below every cap. The figure shown is the median of the draws with its 5–95 % band; the solution at the central figures lies above it, since several limits compete, and each limit holds in a share of the draws. Where an equation is used outside its range every readout is widened by 10 %.',
    equations: [
      {
        title: 'Shares',
        tex: String.raw`s_i = \beta_i\,r_i,\quad \sum_i s_i = R^2`,
        where:
          'β standardised coefficients and r correlations, both of ranks, over a seeded Latin hypercube.',
        range: 'more draws than three per cause',
        source: 'McKay, Beckman & Conover 1979; Iman & Conover 1979; Pratt 1987',
        file: 'core/uncertainty/rankRegression.ts',
      },
      {
        title: 'What to measure next',
        tex: String.raw`w' = w\sqrt{1 - s_i\left(1 - (\sigma'_i/\sigma_i)^2\right)}`,
        where:
          'w half the band now and w′ after; σ′ what a careful measurement leaves. What a steady run and a noise sweep leave is what a quadratic regression on their readings (junctions to 1 K, level to 0.5 dB) cannot tell of the draws.',
        range: 'independent causes',
        source: 'variances add',
        file: 'core/uncertainty/measureNext.ts',
      },
    ],
  },
  {
    id: 'levers',
    title: 'Levers',
    intro:
      'A lever is a change of the record. The machine is drawn before and after it with the same values for whatever both have in common, each cause by its name, so that the band is that of the difference and not of two bands. Levers pulled together are computed together. One is too small to feel where the band of its watts reaches zero or where fewer than half of the draws reach any of what the laboratory calls noticed. A calibration holds for what a lever leaves as it is.',
    equations: [
      {
        title: 'Gain on common draws',
        tex: String.raw`g_i = P_i(\text{after}) - P_i(\text{before})`,
        where:
          'P watts of both dies in their ratio at a cap in draw i. Levels and kelvins saved hold the watts of before: the least level that carries them, straight between levels drawn; the die nearest to its limit at the same fans.',
        range: 'the same record but for the change',
        source: 'common random numbers; Glasserman, Monte Carlo Methods, section 7.1; from memory',
        file: 'core/levers/leverGains.ts',
      },
      {
        title: 'Promise against two runs',
        tex: String.raw`\Delta T = T_\text{room} + \frac{T_1 - T_{\text{room},1}}{\hat T_1 - T_{\text{room},1}}\,(\hat T_2 - T_\text{room}) - T_2`,
        where:
          'T₁ and T₂ what the die read before and after, T̂ what the machine of before would read in each of the two runs, over what is still possible. Runs are never just alike: watts, fans and room of the run after are those of the comparison.',
        range: 'two settled runs, junctions read to 1 K',
        source: 'rises over the room go with the watts',
        file: 'core/levers/promiseKept.ts',
      },
      {
        title: 'Dust',
        tex: String.raw`1 - s(t) = (1 - s_0)\,(1 - r)^{h t / 1000}`,
        where:
          's share of the open face under lint, r what a thousand hours fill of what is open, h hours of use in a year. Cleaning pays once it brings the watts that are noticed; the band comes from the ranges of r and h.',
        range: 'r 3 to 35 %, wide: rooms differ',
        source: 'common practice, no source',
        file: 'core/levers/upkeep.ts',
      },
    ],
  },
];
