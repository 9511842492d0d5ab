import { useReelEditor } from '../../editing/session/useReelEditor';
import { useProxyMaking } from '../../media/proxies/useProxies';
import { Txt } from '../../ui/Txt';

/** Says which clip a proxy is being made of, and what for. */
export function ProxyNote() {
  const { reel } = useReelEditor();
  const making = useProxyMaking();
  if (!making) return null;
  const items = reel.tracks.flatMap((t) => t.items);
  const item = items.find((i) => 'media' in i && i.media === making.media);
  const name = item && 'name' in item ? `“${item.name}”` : 'a clip';
  return (
    <Txt kind="small" tone="quiet" testID="proxy-making">
      {`A proxy of ${name} is being made, ${Math.floor(making.part * 100)}%: going through it will be quick. Renders use the clip itself.`}
    </Txt>
  );
}
