/** What a video shows now, made smaller where it is larger than so many px; null before there is a picture. */
export async function grab(video: HTMLVideoElement, longSidePx: number): Promise<ImageBitmap | null> {
  const { videoWidth, videoHeight } = video;
  if (videoWidth === 0 || video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return null;
  const scale = Math.min(1, longSidePx / Math.max(videoWidth, videoHeight));
  return createImageBitmap(video, {
    resizeWidth: Math.round(scale * videoWidth),
    resizeHeight: Math.round(scale * videoHeight),
    resizeQuality: 'medium',
  });
}
