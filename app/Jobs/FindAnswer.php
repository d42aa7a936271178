<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Database\Interval;
use App\Models\Answer;
use App\Questions\Answers;
use App\Questions\Question;
use App\Questions\QuestionAbandoned;
use App\Questions\QuestionContext;
use App\Questions\QuickQuestion;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/** Answers a question. Run again it finds its work done. */
final class FindAnswer implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly Question $question)
    {
        $this->onQueue($question instanceof QuickQuestion ? 'quick' : 'default');
    }

    public function handle(Answers $answers, QuestionContext $material, Interval $interval): void
    {
        $answer = Answer::query()->whereKey($answers->digest($this->question));
        if (! (clone $answer)->where('state', 'asked')->exists()) {
            return;
        }
        $onProgress = static function (int $done, int $total) use ($answer, $interval): void {
            if ($interval->isOver() && (clone $answer)->where('state', 'asked')->update(['done' => $done, 'total' => $total]) === 0) {
                throw new QuestionAbandoned;
            }
        };
        try {
            $content = $this->question->answer($material, $onProgress);
            (clone $answer)
                ->where('state', 'asked')
                ->update([
                    'state' => 'answered',
                    'content' => json_encode(
                        $content,
                        JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
                    ),
                ]);
        } catch (NineTallyException $problem) {
            (clone $answer)->where('state', 'asked')->update(['state' => 'failed', 'problem' => $problem->getMessage()]);
        } catch (QuestionAbandoned) {
            return;
        }
    }

    public function failed(): void
    {
        Answer::query()
            ->whereKey((new Answers)->digest($this->question))
            ->where('state', 'asked')
            ->update(['state' => 'failed', 'problem' => 'This could not be found out to its end. Tell whoever runs Nine Tally.']);
    }
}
