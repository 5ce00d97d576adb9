// Photos are made smaller before they are sent, and lose where they were taken: a phone in a cellar has little line.

/** The longer side of what is sent, in pixels. */
const LONGEST = 2000;

/** What browsers cannot draw is sent as it is. */
export async function shrink(file: File): Promise<File> {
	if (!/^image\/(jpeg|png|webp|heic|heif|avif)$/.test(file.type)) return file;
	try {
		// Turned upright by what the photo says of itself.
		const picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
		const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
		const canvas = document.createElement('canvas');
		canvas.width = Math.max(1, Math.round(picture.width * scale));
		canvas.height = Math.max(1, Math.round(picture.height * scale));
		const pen = canvas.getContext('2d')!;
		pen.fillStyle = '#fff';
		pen.fillRect(0, 0, canvas.width, canvas.height);
		pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
		picture.close();
		const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.86));
		if (!blob) return file;
		const name = file.name.replace(/\.(png|webp|heic|heif|avif)$/i, '.jpg');
		return new File([blob], name, { type: 'image/jpeg', lastModified: file.lastModified });
	} catch {
		return file;
	}
}
