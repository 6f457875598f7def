/**
 * Asks one question at a time and, when an answer comes, only the newest one that has come up
 * meanwhile. A drag may ask sixty times a second; the server sees as many as it can answer.
 */
export class LatestOnly<Question, Answer> {
  private running = false;
  private next: { question: Question } | undefined;

  constructor(
    private readonly run: (question: Question) => Promise<Answer>,
    private readonly tell: (answer: Answer, question: Question) => void,
    private readonly fail: (error: unknown, question: Question) => void,
  ) {}

  ask(question: Question): void {
    this.next = { question };
    if (!this.running) void this.work();
  }

  get busy(): boolean {
    return this.running;
  }

  private async work(): Promise<void> {
    this.running = true;
    while (this.next) {
      const { question } = this.next;
      this.next = undefined;
      try {
        this.tell(await this.run(question), question);
      } catch (error) {
        this.fail(error, question);
      }
    }
    this.running = false;
  }
}
