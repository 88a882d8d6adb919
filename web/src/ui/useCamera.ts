import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue';

/** The camera of the device, shown in a video element while the component is there. */
export function useCamera(video: Ref<HTMLVideoElement | null>, wanted: MediaTrackConstraints = {}) {
  /** Null until it is known. */
  const hasCamera = ref<boolean | null>(null);
  let stream: MediaStream | null = null;
  onMounted(async () => {
    try {
      stream = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: 'environment', ...wanted },
      });
      video.value!.srcObject = stream;
      await video.value!.play();
      hasCamera.value = true;
    } catch {
      hasCamera.value = false;
    }
  });
  onBeforeUnmount(() => stream?.getTracks().forEach((track) => track.stop()));
  return { hasCamera };
}
