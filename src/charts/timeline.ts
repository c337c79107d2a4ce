import type { EChartsOption, LineSeriesOption } from 'echarts';
import type { SentLane, TimelineWindow } from '@/core/pictures/timeline-window';
import type { TraceEvent } from '@/core/procedure/step-analysis';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figure, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { figureFace, textFace } from './faces';
import type { Tokens } from './tokens';

/** What a time-line draws. */
export interface Timeline {
  readonly lanes: readonly SentLane[];
  /** When the log begins (s of its own clock): time is told from there. */
  readonly start: number;
  readonly window: TimelineWindow;
  readonly whole: TimelineWindow;
  readonly events: readonly TimelineEvent[];
}

/** Something that was found, at a time of the log's own clock. */
export interface TimelineEvent {
  readonly title: string;
  readonly time: number;
}

const eventTitles: Partial<Record<TraceEvent['id'], string>> = {
  worst: 'worst',
  handover: 'handover',
  panic: 'panic',
  'speed-lost': 'speed lost',
  full: 'battery full',
  'store-lowest': 'store lowest',
  'masters-apart': 'sensors apart',
  'switches-apart': 'switches apart',
};

/** What of an analysis stands on a time-line, in the order of time. */
export function timelineEvents(events: readonly TraceEvent[]): readonly TimelineEvent[] {
  return events
    .flatMap(({ id, time }) => {
      const title = eventTitles[id];
      return title === undefined || time === null ? [] : [{ title, time }];
    })
    .toSorted((a, b) => a.time - b.time);
}

const two = (value: number) => String(Math.floor(value)).padStart(2, '0');

/** Time of a drive as 4:07.2 or 1:04:07. */
export function driveTime(seconds: number, exactly = false): string {
  const whole = Math.max(0, seconds);
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const tail = exactly ? rest.toFixed(1).padStart(4, '0') : two(rest);
  return hours > 0 ? `${hours}:${two(minutes)}:${tail}` : `${minutes}:${tail}`;
}

/** Room about the lanes, and between them, px. */
const room = { left: 70, right: 26, top: 48, bottom: 74, between: 28 };
/** So much below nothing, as a share of what is above it, is noise. */
const hardlyBelow = 0.12;
/** Events that have room for their names. */
const namedEvents = 12;

/** Tones of lines that are filled, the first over the next, and of the rest. */
function looksOf(drawn: SentLane['lines'][number]['drawn'], filled: number, tokens: Tokens): Partial<LineSeriesOption> {
  switch (drawn) {
    case 'asked':
      return { lineStyle: { color: tokens.ink, width: 1.6, type: [6, 4] }, itemStyle: { color: tokens.ink }, z: 5 };
    case 'line':
      return { lineStyle: { color: tokens.measured, width: 1.8 }, itemStyle: { color: tokens.measured }, z: 4 };
    case 'filled':
      return filled === 0
        ? {
            lineStyle: { color: tokens.measured, width: 1.4 },
            areaStyle: { color: tokens.measured, opacity: 0.28 },
            itemStyle: { color: tokens.measured },
            z: 2,
          }
        : {
            lineStyle: { color: tokens.bandEdge, width: 1.4 },
            // What friction gives lies on top of it: nothing of it may shine through.
            areaStyle: { color: tokens.band, opacity: 1 },
            itemStyle: { color: tokens.bandEdge },
            z: 3,
          };
  }
}

/** Tops and heights of the lanes of a picture so high, px. */
function lanesAt(
  lanes: readonly SentLane[],
  height: number,
): readonly { readonly top: number; readonly height: number }[] {
  const free = height - room.top - room.bottom - room.between * Math.max(0, lanes.length - 1);
  const shares = lanes.reduce((sum, lane) => sum + lane.height, 0);
  let top = room.top;
  return lanes.map((lane) => {
    const own = Math.max(20, (free * lane.height) / shares);
    const place = { top, height: own };
    top += own + room.between;
    return place;
  });
}

/** Where a lane ends below: at its band where it has one. */
function lowestOf({ band }: SentLane, unit: MeasurementUnit, lowest: number): number {
  return band ? Math.min(lowest, fromSi(band[0], unit)) : lowest;
}

/** ECharts option of lanes under each other on one clock, to be zoomed by wheel, brush and slider. */
export function timelineOption(
  { lanes, start, window, whole, events }: Timeline,
  {
    tokens,
    units,
    height,
    still = false,
  }: {
    readonly tokens: Tokens;
    readonly units: DisplayUnits;
    readonly height: number;
    /** On paper: nothing to be moved. */
    readonly still?: boolean;
  },
): EChartsOption {
  const places = lanesAt(lanes, height);
  const seen = events.filter(({ time }) => time >= window.from && time <= window.to);
  const at = (time: number) => time - start;
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    legend: {
      top: 4,
      left: room.left,
      itemWidth: 26,
      itemHeight: 9,
      itemStyle: { opacity: 0 },
      data: lanes
        .filter(({ lines }) => lines.length > 1)
        .flatMap(({ lines }) =>
          lines.map(({ title, drawn }) => ({
            name: title,
            ...(drawn === 'filled' ? { icon: 'rect', itemStyle: { opacity: 0.5 } } : {}),
          })),
        ),
      textStyle: { color: tokens.ink, fontSize: 14 },
    },
    // Lanes lie exactly under each other, however wide their figures are.
    grid: places.map((place) => ({
      left: room.left,
      right: room.right,
      outerBoundsMode: 'none' as const,
      ...place,
    })),
    axisPointer: { link: [{ xAxisIndex: 'all' as const }], lineStyle: { color: tokens.softInk } },
    xAxis: lanes.map((_, lane) => ({
      type: 'value' as const,
      gridIndex: lane,
      min: at(whole.from),
      max: at(whole.to),
      axisLine: { onZero: false, lineStyle: { color: tokens.line } },
      axisTick: { show: false },
      axisLabel: {
        show: lane === lanes.length - 1,
        color: tokens.softInk,
        fontFamily: figureFace,
        fontSize: 14,
        hideOverlap: true,
        formatter: (value: number) => driveTime(value, window.to - window.from < 20),
      },
      splitLine: { lineStyle: { color: tokens.line, opacity: 0.6 } },
    })),
    yAxis: lanes.map((lane, index) => {
      const unit = shownUnit(lane.as, units);
      return {
        type: 'value' as const,
        gridIndex: index,
        name: `${lane.title}, ${unit.symbol}`,
        nameLocation: 'end' as const,
        nameGap: 5,
        nameTextStyle: { color: tokens.ink, fontSize: 13, align: 'left' as const, padding: [0, 0, 0, 6 - room.left] },
        // A little noise about nothing is no reason to draw as much below it.
        min: (reach: { readonly min: number; readonly max: number }) =>
          reach.min > -hardlyBelow * reach.max ? 0 : lowestOf(lane, unit, reach.min),
        max: (reach: { readonly max: number }) => Math.max(reach.max, lane.band ? fromSi(lane.band[1], unit) : 0),
        splitNumber: lane.height > 1.2 ? 4 : 2,
        axisLabel: {
          color: tokens.softInk,
          fontFamily: figureFace,
          fontSize: 13,
          showMaxLabel: false,
          showMinLabel: index === lanes.length - 1,
          formatter: (value: number) => Number(value.toPrecision(3)).toLocaleString('en'),
        },
        splitLine: { lineStyle: { color: tokens.line, opacity: 0.6 } },
      };
    }),
    dataZoom: still
      ? []
      : [
          {
            type: 'inside',
            xAxisIndex: lanes.map((_, lane) => lane),
            startValue: at(window.from),
            endValue: at(window.to),
            minValueSpan: 0.5,
            filterMode: 'none',
          },
          {
            type: 'slider',
            xAxisIndex: lanes.map((_, lane) => lane),
            startValue: at(window.from),
            endValue: at(window.to),
            minValueSpan: 0.5,
            filterMode: 'none',
            bottom: 8,
            height: 26,
            left: room.left,
            right: room.right,
            showDataShadow: false,
            brushSelect: true,
            borderColor: tokens.line,
            fillerColor: tokens.band,
            handleStyle: { color: tokens.panel, borderColor: tokens.ink },
            moveHandleStyle: { color: tokens.bandEdge },
            textStyle: { color: tokens.softInk, fontFamily: figureFace, fontSize: 13 },
            labelFormatter: (value: number) => driveTime(value),
          },
        ],
    series: lanes.flatMap((lane, index) => laneSeries(lane, index, { tokens, units, at, seen })),
  };
}

function laneSeries(
  lane: SentLane,
  index: number,
  how: {
    readonly tokens: Tokens;
    readonly units: DisplayUnits;
    readonly at: (time: number) => number;
    readonly seen: readonly TimelineEvent[];
  },
): LineSeriesOption[] {
  const { tokens, units, at, seen } = how;
  const unit = shownUnit(lane.as, units);
  let filled = 0;
  return lane.lines.map(({ title, drawn, points }, line): LineSeriesOption => {
    const looks = looksOf(drawn, drawn === 'filled' ? filled++ : 0, tokens);
    return {
      id: `${lane.title} ${title}`,
      name: title,
      type: 'line',
      xAxisIndex: index,
      yAxisIndex: index,
      symbol: 'none',
      silent: true,
      connectNulls: false,
      data: points.map(([time, value]) => [at(time), value === null ? null : fromSi(value, unit)]),
      ...looks,
      ...(line === 0 && lane.band
        ? {
            markArea: {
              silent: true,
              itemStyle: { color: tokens.band, opacity: 0.75 },
              data: [[{ yAxis: fromSi(lane.band[0], unit) }, { yAxis: fromSi(lane.band[1], unit) }]],
            },
          }
        : {}),
      ...(line === 0 && seen.length > 0
        ? {
            markLine: {
              silent: true,
              symbol: 'none',
              lineStyle: {
                color: tokens.ink,
                width: 1,
                type: 'solid' as const,
                opacity: seen.length <= namedEvents ? 0.75 : 0.22,
              },
              label: {
                show: index === 0 && seen.length <= namedEvents,
                formatter: '{b}',
                color: tokens.ink,
                fontSize: 13,
                rotate: 0,
                position: 'end' as const,
              },
              data: seen.map((event) => ({ name: event.title, xAxis: at(event.time) })),
            },
          }
        : {}),
    };
  });
}

/** What a time-line says, for those who do not see it. */
export function timelineText({ lanes, start, window, events }: Timeline, units: DisplayUnits): string {
  const highest = (lane: SentLane) =>
    lane.lines.flatMap(({ title, points }) => {
      const values = points.flatMap(([, value]) => (value === null ? [] : [value]));
      if (values.length === 0) return [];
      const reach = values.reduce((most, value) => (Math.abs(value) > Math.abs(most) ? value : most), 0);
      const unit = shownUnit(lane.as, units);
      return [`${title.toLowerCase()} up to ${figure(reach, unit)} ${unit.symbol}`];
    });
  const seen = events.filter(({ time }) => time >= window.from && time <= window.to);
  return [
    `From ${driveTime(window.from - start, true)} to ${driveTime(window.to - start, true)} of the drive: ${lanes.flatMap(highest).join(', ')}.`,
    ...(seen.length > 0
      ? [
          `Found there: ${seen
            .slice(0, namedEvents)
            .map(({ title, time }) => `${title} at ${driveTime(time - start, true)}`)
            .join(', ')}.`,
        ]
      : []),
  ].join(' ');
}
