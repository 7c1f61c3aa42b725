import './history.css';
import { Area, AreaChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { KeptFitView, ReviewView } from '../../api/schema.gen';
import { clockIn, dayIn, exactIn } from '../../parts/times';
import { useZone } from '../../parts/useZone';
import { type PlotPoint, plotPoints } from './plotPoints';

const spans = 4;
/** A day, in milliseconds. */
const day = 86_400_000;

/** How the fit changed over time: excess rights stand above the line, missing rights below it. The table below says the same. */
export function HistoryPlot({ fits, reviews }: { fits: KeptFitView[]; reviews: ReviewView[] }) {
  const points = plotPoints(fits);
  const times = [...points.map((p) => p.at), ...reviews.map((r) => Date.parse(r.at))];
  const [first, last] = [Math.min(...times), Math.max(...times)];
  const ticks = Array.from({ length: spans + 1 }, (_, i) => first + ((last - first) * i) / spans);
  const zone = useZone();
  const label = (at: number) => (last - first > day ? dayIn(at, zone) : clockIn(at, zone));
  return (
    <figure className="plot" aria-label="How the fit changed over time; the table below says the same">
      <ResponsiveContainer width="100%" height={180}>
        <AreaChart data={points} margin={{ top: 12, right: 48, bottom: 0, left: 16 }}>
          <XAxis
            dataKey="at"
            type="number"
            scale="time"
            domain={[first, last]}
            ticks={ticks}
            tickFormatter={label}
            stroke="var(--soft)"
          />
          <YAxis
            allowDecimals={false}
            tickFormatter={(n: number) => `${Math.abs(n)}`}
            stroke="var(--soft)"
            width={32}
          />
          <ReferenceLine y={0} stroke="var(--ink)" />
          {reviews.map((r) => (
            <ReferenceLine
              key={r.number}
              x={Date.parse(r.at)}
              stroke="var(--ink)"
              strokeDasharray="2 3"
              label={{ value: `review ${r.number}`, position: 'insideTopRight', fill: 'var(--soft)', fontSize: 12 }}
            />
          ))}
          <Area
            type="stepAfter"
            dataKey="excess"
            stroke="var(--warm)"
            fill="var(--warm)"
            fillOpacity={0.25}
            isAnimationActive={false}
          />
          <Area
            type="stepAfter"
            dataKey="missing"
            stroke="var(--cold)"
            fill="var(--cold)"
            fillOpacity={0.25}
            isAnimationActive={false}
          />
          <Tooltip
            content={({ payload }) => <Said point={payload[0]?.payload as PlotPoint | undefined} zone={zone} />}
            isAnimationActive={false}
          />
        </AreaChart>
      </ResponsiveContainer>
      <figcaption className="soft">
        <span style={{ color: 'var(--warm)' }}>▲ excess</span>, <span style={{ color: 'var(--cold)' }}>▼ missing</span>;
        dashed lines are reviews
      </figcaption>
    </figure>
  );
}

function Said({ point, zone }: { point: PlotPoint | undefined; zone: string }) {
  if (!point) return null;
  return (
    <div className="said">
      fit {point.number}: {point.words}
      <div className="soft">{exactIn(point.at, zone)}</div>
    </div>
  );
}
