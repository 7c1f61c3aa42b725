import { useComputedColorScheme } from '@mantine/core';
import { type Edge, Handle, MarkerType, type Node, type NodeProps, Position, ReactFlow } from '@xyflow/react';
import { useMemo } from 'react';
import type { HostServiceView } from '../../api/schema.gen';
import { layoutServices, type ServiceNode } from './layoutServices';

const columnWidth = 240;
const rowHeight = 72;

type BoxNode = Node<{ of: ServiceNode }, 'service'>;

function ServiceBox({ data }: NodeProps<BoxNode>) {
  const { name, service } = data.of;
  const wrong = service?.obstacle ?? (service?.restartPending ? 'restart pending' : null);
  const group = name.startsWith('+');
  return (
    <div className={`node node-${wrong || (!service && !group) ? 'missing' : 'passed'}`}>
      <Handle type="target" position={Position.Left} isConnectable={false} />
      {name}
      <br />
      <small>
        {service ? (wrong ? '◁ ' : '') + service.start : group ? 'a group of services' : '◁ not on this host'}
      </small>
      <Handle type="source" position={Position.Right} isConnectable={false} />
    </div>
  );
}

const nodeTypes = { service: ServiceBox };

/** What starts before what, left to right; the table below it says the same. */
export function ServicePicture({ services }: { services: HostServiceView[] }) {
  const scheme = useComputedColorScheme('light');
  const { nodes, edges, height } = useMemo(() => {
    const picture = layoutServices(services);
    const nodes: BoxNode[] = picture.nodes.map((of) => ({
      id: of.name.toLowerCase(),
      type: 'service',
      position: { x: of.column * columnWidth, y: of.row * rowHeight },
      data: { of },
      draggable: false,
      focusable: false,
    }));
    const edges: Edge[] = picture.edges.map((edge) => ({
      id: `${edge.from}>${edge.to}`,
      source: edge.from,
      target: edge.to,
      focusable: false,
      style: { stroke: 'var(--soft)', strokeWidth: 1.5 },
      markerEnd: { type: MarkerType.Arrow, color: 'var(--soft)' },
    }));
    const rows = Math.max(0, ...picture.nodes.map((n) => n.row)) + 1;
    return { nodes, edges, height: Math.min(480, Math.max(120, rows * rowHeight + 24)) };
  }, [services]);
  if (nodes.length === 0) return <p className="empty">No service of this host depends on another.</p>;
  return (
    <div className="picture" style={{ height }} aria-hidden="true">
      <ReactFlow
        nodes={nodes}
        edges={edges}
        nodeTypes={nodeTypes}
        colorMode={scheme}
        fitView
        fitViewOptions={{ padding: 0.04, maxZoom: 1 }}
        nodesConnectable={false}
        elementsSelectable={false}
        zoomOnScroll={false}
        preventScrolling={false}
        proOptions={{ hideAttribution: true }}
      />
    </div>
  );
}
