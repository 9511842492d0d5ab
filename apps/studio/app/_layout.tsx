import { messageOf } from '@fresh-reel/core';
import { QueryClientProvider } from '@tanstack/react-query';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { startDemo } from '@/demo/start';
import { clearOutFiles } from '@/disk/outFile';
import { loadEditor } from '@/editor/loadEditor';
import { keepOffline } from '@/offline/offline';
import { fetchedByPreviews } from '@/preview/previewClient';
import { startQueue } from '@/render/queue/jobs';
import { clearBrokenImports } from '@/storage/media';
import { clearBrokenProxies } from '@/storage/proxies';
import { queryClient } from '@/storage/queries';
import { purgeOld } from '@/storage/removed';
import { besideText, keepUnwrittenBrands, recoverUnsaved } from '@/storage/unsaved';
import { templatesQuery } from '@/storage/useTemplates';
import { Announcer } from '@/ui/announce';
import { Banner } from '@/ui/Banner';
import { ToastProvider } from '@/ui/Toast';
import { colour, FONT_FACES } from '@/ui/theme';

window.addEventListener('pagehide', keepUnwrittenBrands);

/** Milliseconds for which the first screen waits for what is put in at the start. */
const AT_MOST = 8000;

/** Milliseconds from the start until the rest of the app is loaded. */
const REST_AFTER = 3000;

export default function Layout() {
  const [state, setState] = useState<'starting' | 'ready' | { fault: string }>('starting');
  const [beside, setBeside] = useState<readonly string[]>([]);
  useEffect(() => {
    const begun = recoverUnsaved().then((found) => {
      setBeside(found);
      return startDemo();
    });
    // What is slow to begin keeps nobody out.
    Promise.race([begun, new Promise<void>((go) => setTimeout(go, AT_MOST))])
      .then(() => setState('ready'))
      .catch((error: unknown) => setState({ fault: messageOf(error) }));
    void startQueue();
    void clearOutFiles();
    // Asked once the browser has something of the user's to keep; it may say no without a word.
    void navigator.storage?.persist?.();
    // Nothing waits for these.
    void clearBrokenImports()
      .then(clearBrokenProxies)
      .then(() => purgeOld())
      // What Templates lists is there before one goes there.
      .then(() => queryClient.prefetchQuery(templatesQuery))
      // A template's page and the editor are loaded after what shows the first pictures; other places when one goes there.
      .then(() => new Promise((resolve) => setTimeout(resolve, REST_AFTER)))
      .then(() => import('@/templates/TemplateDetails'))
      .then(loadEditor)
      .then(() => keepOffline(fetchedByPreviews))
      .catch(() => undefined);
  }, []);
  return (
    <QueryClientProvider client={queryClient}>
      <style>{FONT_FACES}</style>
      <ToastProvider>
        <View style={styles.app}>
          {typeof state === 'object' && (
            <Banner kind="fault">{`This browser does not let Fresh Reel keep anything (${state.fault}). You can work, but reels will be gone when the tab closes.`}</Banner>
          )}
          {beside.map((name) => (
            <Banner key={name} kind="watch" testID="kept-beside">
              {besideText(name)}
            </Banner>
          ))}
          {state !== 'starting' && <Slot />}
          <Announcer />
        </View>
      </ToastProvider>
    </QueryClientProvider>
  );
}

const styles = StyleSheet.create({ app: { flex: 1, backgroundColor: colour.paper } });
