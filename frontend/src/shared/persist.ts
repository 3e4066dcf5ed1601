/** Repeats what must reach the server until it can be reached. */
export async function persist<T>(attempt: () => Promise<T>): Promise<T> {
  for (let pause = 500; ; pause = Math.min(5000, pause * 2)) {
    try {
      return await attempt();
    } catch (error) {
      const status = (error as { status?: number }).status ?? 0;
      if (status && status < 500) throw error;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
}
