import { QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { clearOutFiles } from '@/media/files/outFile';
import { restoreRenders } from '@/render/jobs';
import { startDemoShelf } from '@/shelf/demoShelf';
import { startDemo } from '@/storage/demo';
import { clearBrokenImports } from '@/storage/media';
import { queryClient } from '@/storage/queries';
import { purgeOld } from '@/storage/removed';
import { recoverUnsaved } from '@/storage/unsaved';
import { Banner } from '@/ui/Banner';
import { ToastProvider } from '@/ui/Toast';
import { colour, interfaceFonts } from '@/ui/theme';

export default function Layout() {
  // Words show in the system's font until ours are here.
  useFonts(interfaceFonts);
  const [state, setState] = useState<'starting' | 'ready' | { fault: string }>('starting');
  useEffect(() => {
    recoverUnsaved()
      .then(startDemo)
      .then(() => setState('ready'))
      .catch((error: unknown) => setState({ fault: error instanceof Error ? error.message : String(error) }));
    void restoreRenders();
    void clearOutFiles();
    // Asked once the browser has something of the user's to keep; it may say no without a word.
    void navigator.storage?.persist?.();
    // Nothing waits for these.
    void clearBrokenImports()
      .then(() => purgeOld())
      .then(startDemoShelf)
      .catch(() => undefined);
  }, []);
  return (
    <QueryClientProvider client={queryClient}>
      <ToastProvider>
        <View style={styles.app}>
          {typeof state === 'object' && (
            <Banner kind="fault">{`This browser does not let Fresh Reel keep anything (${state.fault}). You can work, but reels will be gone when the tab closes.`}</Banner>
          )}
          {state !== 'starting' && <Slot />}
        </View>
      </ToastProvider>
    </QueryClientProvider>
  );
}

const styles = StyleSheet.create({ app: { flex: 1, backgroundColor: colour.paper } });
