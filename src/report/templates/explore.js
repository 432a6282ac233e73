
'use strict';
(() => {
  const data = JSON.parse(document.getElementById('explore-data').textContent);
  const by = (id) => document.getElementById('x-' + id);
  const el = {};
  for (const id of ['of-configuration', 'configuration', 'height', 'setting', 'target', 'low', 'high', 'hours', 'slide',
    'currency', 'tariff', 'absent', 'key', 'key-low', 'key-high', 'map', 'in', 'out', 'whole', 'place', 'figures']) el[id] = by(id);

  // Figures as the rest of the page shows them: exact halves go to the even digit.
  const fixed = (value, decimals) => {
    const scaled = value * 10 ** decimals, below = Math.floor(scaled);
    if (scaled - below === 0.5 && below % 2 === 0) return (below / 10 ** decimals).toFixed(decimals);
    return value.toFixed(decimals);
  };
  const known = (value) => (value === null ? NaN : value);

  /// Where a place lies between rising lines: [low, high, share of high].
  const bracket = (lines, place) => {
    const last = lines.length - 1;
    if (place <= lines[0]) return [0, 0, 0];
    if (place >= lines[last]) return [last, last, 0];
    let high = 1;
    while (lines[high] <= place) ++high;
    const share = (place - lines[high - 1]) / (lines[high] - lines[high - 1]);
    return share === 0 ? [high - 1, high - 1, 0] : [high - 1, high, share];
  };

  /// The light of a sweep at the middles of equal cells of an area; rows from the front.
  const sampled = (sweep, area, columns, rows) => {
    const {xs, ys} = sweep, count = xs.length;
    const across = [], samples = new Float64Array(columns * rows), line = new Float64Array(count);
    for (let i = 0; i < columns; ++i) across.push(bracket(xs, area.left + (i + 0.5) * (area.width / columns)));
    for (let j = 0; j < rows; ++j) {
      const [low, high, share] = bracket(ys, area.front + (j + 0.5) * (area.depth / rows));
      for (let i = 0; i < count; ++i) {
        const front = known(sweep.values[low * count + i]), back = known(sweep.values[high * count + i]);
        line[i] = front + share * (back - front);
      }
      for (let i = 0; i < columns; ++i) {
        const [left, right, part] = across[i];
        samples[j * columns + i] = line[left] + part * (line[right] - line[left]);
      }
    }
    return samples;
  };

  const cells = new Map();
  /// The samples that shares of area are counted on.
  const counted = (sweep) => {
    if (!cells.has(sweep)) {
      const area = sweep.area;
      let step = data.step_m;
      const wanted = area.width / step * (area.depth / step);
      if (wanted > data.most_samples) step *= Math.sqrt(wanted / data.most_samples);
      const count = (length) => Math.max(1, Math.round(length / step));
      cells.set(sweep, sampled(sweep, area, count(area.width), count(area.depth)));
    }
    return cells.get(sweep);
  };
  const sharesOf = (sweep, band) => {
    const all = counted(sweep);
    let inside = 0;
    for (const e of all) if (e >= band.low && e <= band.high) ++inside;
    return inside / all.length;
  };

  const state = {configuration: 0, height: 0, setting: 0, target: 0, view: null};
  const configuration = () => data.configurations[state.configuration];
  const sweep = () => configuration().sweeps.find(
    (s) => s.height === configuration().heights[state.height]?.id &&
           s.setting === configuration().settings[state.setting]?.id) || null;
  const number = (field) => (field.value.trim() === '' ? NaN : Number(field.value));
  const hours = () => Math.min(24, Math.max(0, number(el.hours) || 0));
  const band = () => ({low: number(el.low), high: number(el.high)});

  const fill = (select, options, chosen) => {
    select.replaceChildren(...options.map((words, i) => {
      const option = document.createElement('option');
      option.value = String(i);
      option.textContent = words;
      return option;
    }));
    select.value = String(chosen);
  };

  const takeBand = () => {
    const target = data.targets[state.target];
    if (!target) return;
    const ppfd = (daily) => daily * 1e6 / (3600 * hours());
    const ends = target.by_daily_light ? [ppfd(target.low), ppfd(target.high)] : [target.low, target.high];
    [el.low.value, el.high.value] = ends.map((e) => (Number.isFinite(e) ? String(Math.round(e * 10) / 10) : ''));
  };

  // The test's own rule, of the stations' light.
  const served = (s, b, share) => {
    const {edge, center, corners, lowest, highest} = s.light, {kind, ppfd, within} = data.rule;
    if (kind === 'edge') return edge !== null && edge >= b.low && highest <= b.high;
    if (kind === 'every') return lowest >= b.low && highest <= b.high;
    if (kind === 'mean') return s.mean >= b.low && s.mean <= b.high;
    if (kind === 'corners') return corners !== null && corners >= ppfd;
    if (kind === 'center') return center !== null && Math.abs(center - ppfd) <= within * ppfd;
    return share >= data.rule.share;
  };

  const figures = () => {
    const s = sweep();
    el.absent.hidden = s !== null;
    const rows = [];
    const row = (id, name, value) => rows.push([id, name, value]);
    if (s) {
      for (const told of s.told) row(told.id, told.label, told.value);
      const h = hours(), b = band(), tariff = number(el.tariff);
      row('daily', 'Daily light, mean', `${fixed(s.mean * 3600 * h / 1e6, 1)} mol/m²/d`);
      if (s.xs.length && b.low < b.high) {
        const share = sharesOf(s, b);
        row('band', 'In band', `${fixed(100 * share, 1)} %`);
        row('serves', 'Target', `${served(s, b, share) ? 'served' : 'not served'} (${data.rule.words})`);
      } else {
        row('band', 'In band', s.xs.length ? 'the band ends below where it begins' : 'not known between loose stations');
      }
      if (s.power_w !== null) {
        const kwh = s.power_w * h / 1000;
        row('energy', 'Energy', `${fixed(kwh, 2)} kWh a day`);
        if (tariff >= 0) {
          row('cost-day', 'Cost', `${fixed(kwh * tariff, 2)} ${data.currency} a day`);
          row('cost-year', 'Cost of a year', `${fixed(kwh * data.days_a_year * tariff, 2)} ${data.currency}`);
        }
      }
    }
    el.figures.replaceChildren(...rows.map(([id, name, value]) => {
      const tr = document.createElement('tr'), th = document.createElement('th'), td = document.createElement('td');
      th.scope = 'row';
      th.textContent = name;
      td.className = 'n';
      td.id = 'x-value-' + id;
      td.textContent = value;
      tr.append(th, td);
      return tr;
    }));
  };

  const whole = (s) => ({left: 0, front: 0, width: s.footprint[0], depth: s.footprint[1]});

  const colorOf = (ppfd) => {
    const stops = data.colors, at = (ppfd - data.range[0]) / Math.max(1e-12, data.range[1] - data.range[0]);
    return stops[Math.min(stops.length - 1, Math.max(0, Math.round(at * (stops.length - 1))))];
  };

  const draw = () => {
    const s = sweep(), canvas = el.map, g = canvas.getContext('2d');
    const wide = Math.max(240, Math.min(600, canvas.parentElement.clientWidth)), sharp = window.devicePixelRatio || 1;
    const ratio = s ? s.footprint[1] / s.footprint[0] : 1, high = Math.round(Math.min(wide * ratio, 720));
    canvas.style.width = `${wide}px`;
    canvas.style.height = `${high}px`;
    canvas.width = Math.round(wide * sharp);
    canvas.height = Math.round(high * sharp);
    g.fillStyle = data.paper;
    g.fillRect(0, 0, canvas.width, canvas.height);
    if (!s) return;
    const view = state.view || whole(s), scale = canvas.width / view.width, tall = canvas.height / view.depth;
    const b = band(), x = (m) => (m - view.left) * scale, y = (m) => canvas.height - (m - view.front) * tall;
    if (s.xs.length) {
      const image = g.createImageData(canvas.width, canvas.height), samples = sampled(s, view, canvas.width, canvas.height);
      for (let row = 0; row < canvas.height; ++row)
        for (let column = 0; column < canvas.width; ++column) {
          const e = samples[(canvas.height - 1 - row) * canvas.width + column], at = 4 * (row * canvas.width + column);
          const mx = view.left + (column + 0.5) / scale, my = view.front + (canvas.height - row - 0.5) / tall, a = s.area;
          if (Number.isNaN(e) || mx < a.left || mx > a.left + a.width || my < a.front || my > a.front + a.depth) continue;
          let [red, green, blue] = colorOf(e);
          const line = Math.round(7 * sharp), dim = e < b.low && (column + row) % line < sharp,
            bright = e > b.high && column % line < 2 * sharp && row % line < 2 * sharp;
          if (dim || bright) [red, green, blue] = [red, green, blue].map((c) => (dim ? c * 0.55 + 90 : c * 0.5));
          image.data.set([red, green, blue, 255], at);
        }
      g.putImageData(image, 0, 0);
    }
    g.font = `${Math.round(11 * sharp)}px B612, "DejaVu Sans", sans-serif`;
    g.textAlign = 'center';
    g.textBaseline = 'middle';
    const near = s.places.length > 1 ? scale * s.spacing : canvas.width;
    s.places.forEach(([px, py], i) => {
      const e = known(s.values[i]), cx = x(px), cy = y(py);
      if (cx < 0 || cy < 0 || cx > canvas.width || cy > canvas.height || Number.isNaN(e)) return;
      const [red, green, blue] = s.xs.length ? colorOf(e) : [251, 249, 244];
      g.fillStyle = 0.2126 * red + 0.7152 * green + 0.0722 * blue > 120 ? '#1E2A2F' : '#FBF9F4';
      if (near > 38 * sharp) g.fillText(fixed(e, e < 99.95 ? 1 : 0), cx, cy);
      else if (near > 7 * sharp) g.fillRect(cx - sharp, cy - sharp, 2 * sharp, 2 * sharp);
    });
    canvas.setAttribute('aria-label', `Map at ${configuration().heights[state.height].words}, ` +
      `${configuration().settings[state.setting].words}: mean ${s.told[0].value}`);
  };

  const renew = () => {
    figures();
    draw();
  };

  const shapes = () => {
    fill(el.height, configuration().heights.map((h) => h.words), state.height);
    fill(el.setting, configuration().settings.map((c) => c.words), state.setting);
  };

  const zoom = (by, atX, atY) => {
    const s = sweep();
    if (!s) return;
    const all = whole(s), view = state.view || all;
    const width = Math.min(all.width, Math.max(all.width / 64, view.width / by)), depth = all.depth * width / all.width;
    move(atX - (atX - view.left) * width / view.width, atY - (atY - view.front) * depth / view.depth, width, depth);
  };
  const move = (left, front, width, depth) => {
    const all = whole(sweep());
    state.view = {left: Math.min(all.width - width, Math.max(0, left)),
      front: Math.min(all.depth - depth, Math.max(0, front)), width, depth};
    draw();
  };
  const middle = () => {
    const view = state.view || whole(sweep());
    return [view.left + view.width / 2, view.front + view.depth / 2];
  };
  const placeOf = (event) => {
    const view = state.view || whole(sweep()), r = el.map.getBoundingClientRect();
    return [view.left + (event.clientX - r.left) / r.width * view.width,
      view.front + (r.bottom - event.clientY) / r.height * view.depth];
  };

  el.configuration.addEventListener('change', () => {
    Object.assign(state, {configuration: Number(el.configuration.value), height: 0, setting: 0, view: null});
    shapes();
    renew();
  });
  for (const name of ['height', 'setting'])
    el[name].addEventListener('change', () => {
      state[name] = Number(el[name].value);
      renew();
    });
  el.target.addEventListener('change', () => {
    state.target = Number(el.target.value);
    const target = data.targets[state.target];
    if (target) el.hours.value = el.slide.value = String(target.hours);
    takeBand();
    renew();
  });
  const hoursMoved = (from, to) => {
    to.value = from.value;
    if (data.targets[state.target]?.by_daily_light) takeBand();
    renew();
  };
  el.hours.addEventListener('input', () => hoursMoved(el.hours, el.slide));
  el.slide.addEventListener('input', () => hoursMoved(el.slide, el.hours));
  el.tariff.addEventListener('input', renew);
  for (const end of ['low', 'high'])
    el[end].addEventListener('input', () => {
      state.target = data.targets.length;
      el.target.value = String(state.target);
      renew();
    });
  el.in.addEventListener('click', () => sweep() && zoom(1.5, ...middle()));
  el.out.addEventListener('click', () => sweep() && zoom(1 / 1.5, ...middle()));
  el.whole.addEventListener('click', () => {
    state.view = null;
    draw();
  });
  el.map.addEventListener('wheel', (event) => {
    if (!sweep()) return;
    event.preventDefault();
    zoom(event.deltaY < 0 ? 1.25 : 1 / 1.25, ...placeOf(event));
  }, {passive: false});
  el.map.addEventListener('keydown', (event) => {
    if (!sweep()) return;
    const view = state.view || whole(sweep());
    const steps = {ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1]};
    if (event.key === '+' || event.key === '=') zoom(1.5, ...middle());
    else if (event.key === '-') zoom(1 / 1.5, ...middle());
    else if (steps[event.key]) move(view.left + steps[event.key][0] * view.width / 8,
      view.front + steps[event.key][1] * view.depth / 8, view.width, view.depth);
    else return;
    event.preventDefault();
  });
  let held = null;
  el.map.addEventListener('pointerdown', (event) => {
    if (!sweep()) return;
    held = {x: event.clientX, y: event.clientY, view: state.view || whole(sweep())};
    el.map.setPointerCapture(event.pointerId);
  });
  el.map.addEventListener('pointerup', () => { held = null; });
  el.map.addEventListener('pointermove', (event) => {
    const s = sweep();
    if (!s) return;
    if (held) {
      const r = el.map.getBoundingClientRect(), v = held.view;
      move(v.left - (event.clientX - held.x) / r.width * v.width, v.front + (event.clientY - held.y) / r.height * v.depth,
        v.width, v.depth);
    }
    const [px, py] = placeOf(event), a = s.area;
    const inside = px >= a.left && px <= a.left + a.width && py >= a.front && py <= a.front + a.depth;
    const e = s.xs.length && inside
      ? sampled(s, {left: px, front: py, width: 0, depth: 0}, 1, 1)[0] : NaN;
    const length = (m) => `${fixed(m / data.unit_m, 1)} ${data.unit}`;
    el.place.textContent = Number.isNaN(e) ? '' : `${length(px)} from the left, ${length(py)} from the front: ` +
      `${fixed(e, e < 99.95 ? 1 : 0)} µmol/m²/s`;
  });
  window.addEventListener('resize', draw);

  fill(el.configuration, data.configurations.map((c) => c.name), 0);
  el['of-configuration'].hidden = data.configurations.length < 2;
  [state.height, state.setting] = [data.first.height, data.first.setting];
  fill(el.target, [...data.targets.map((t) => t.name), 'a band of your own'], 0);
  el.hours.value = el.slide.value = String(data.hours);
  el.currency.textContent = data.currency;
  el.tariff.value = data.tariff === null ? '' : String(data.tariff);
  el.key.style.background = `linear-gradient(to right, ${data.colors.filter((_, i) => i % 15 === 0)
    .map((c) => `rgb(${c.join(',')})`).join(',')})`;
  [el['key-low'].textContent, el['key-high'].textContent] = data.range.map(String);
  takeBand();
  shapes();
  document.getElementById('explore').hidden = false;
  renew();
})();
