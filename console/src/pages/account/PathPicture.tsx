import { useComputedColorScheme } from '@mantine/core';
import { type Edge, Handle, MarkerType, type Node, type NodeProps, Position, ReactFlow } from '@xyflow/react';
import { useMemo } from 'react';
import type { JudgementView } from '../../api/schema.gen';
import { layered } from '../../parts/layered';
import { joinPaths, type PictureNode } from './joinPaths';

const room = { width: 212, height: 40, across: 50, down: 14 };
const colors: Record<string, string> = {
  excess: 'var(--warm)',
  forbidden: 'var(--warm)',
  met: 'var(--right)',
  missing: 'var(--cold)',
};

type StepNode = Node<{ step: PictureNode }, 'step'>;

function StepBox({ data }: NodeProps<StepNode>) {
  const { step } = data;
  return (
    <div className={`node node-${step.verdict}`}>
      <Handle type="target" position={Position.Left} isConnectable={false} />
      {step.name}
      <Handle type="source" position={Position.Right} isConnectable={false} />
    </div>
  );
}

const nodeTypes = { step: StepBox };

/** The paths as a picture, left to right; the table below it says the same. */
export function PathPicture({ rights }: { rights: JudgementView[] }) {
  const scheme = useComputedColorScheme('light');
  const { nodes, edges, height } = useMemo(() => {
    const picture = joinPaths(rights);
    const { corners, height } = layered(
      picture.nodes.map((n) => n.id),
      picture.edges,
      room,
    );
    const nodes: StepNode[] = picture.nodes.map((step) => ({
      id: step.id,
      type: 'step',
      position: corners.get(step.id) ?? { x: 0, y: 0 },
      data: { step },
      draggable: false,
      focusable: false,
    }));
    const edges: Edge[] = picture.edges.map((edge) => ({
      id: `${edge.from}>${edge.to}`,
      source: edge.from,
      target: edge.to,
      focusable: false,
      style: {
        stroke: colors[edge.verdict] ?? 'var(--soft)',
        strokeWidth: edge.verdict === 'forbidden' ? 2.5 : 1.5,
        strokeDasharray: edge.verdict === 'forbidden' ? '6 3' : undefined,
      },
      markerEnd: { type: MarkerType.Arrow, color: colors[edge.verdict] ?? 'var(--soft)' },
    }));
    return { nodes, edges, height: Math.min(560, Math.max(120, height + 32)) };
  }, [rights]);
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
