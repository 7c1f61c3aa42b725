import { useComputedColorScheme } from '@mantine/core';
import { type Edge, Handle, MarkerType, type Node, type NodeProps, Position, ReactFlow } from '@xyflow/react';
import { useMemo } from 'react';
import type { HostServiceView } from '../../api/schema.gen';
import { layered } from '../../parts/layered';
import { joinServices, type ServiceNode } from './joinServices';

const room = { width: 190, height: 54, across: 50, down: 16 };

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
    const picture = joinServices(services);
    const { corners, height } = layered(
      picture.nodes.map((n) => n.name.toLowerCase()),
      picture.edges,
      room,
    );
    const nodes: BoxNode[] = picture.nodes.map((of) => ({
      id: of.name.toLowerCase(),
      type: 'service',
      position: corners.get(of.name.toLowerCase()) ?? { x: 0, y: 0 },
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
    return { nodes, edges, height: Math.min(480, Math.max(100, height + 32)) };
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
