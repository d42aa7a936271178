<?php

declare(strict_types=1);

namespace Tests\Support;

use App\Models\Answer;
use App\Questions\Question;
use App\Questions\QuestionContext;
use NineTally\Core\NineTallyException;

/** A question of which it is known beforehand what becomes of it. */
final class QuestionOfTests implements Question
{
    public static int $timesAsked = 0;

    private function __construct(private readonly string $becomes) {}

    public static function answered(): self
    {
        return new self('answered');
    }

    /** Somebody gives it up while a worker is at it. */
    public static function givenUp(): self
    {
        return new self('given up');
    }

    public static function refused(): self
    {
        return new self('refused');
    }

    public static function broken(): self
    {
        return new self('broken');
    }

    public function kind(): string
    {
        return 'question-of-tests';
    }

    public function about(): array
    {
        return [$this->becomes];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        self::$timesAsked++;
        if ($this->becomes === 'given up') {
            Answer::query()->update(['state' => 'cancelled']);
            $onProgress(1, 2);
        }

        return match ($this->becomes) {
            'refused' => throw new class ('The lock house is closed. Come back in the morning.') extends \RuntimeException implements
                NineTallyException {
                public function code(): string
                {
                    return 'closed';
                }
            },
            'broken' => ['berths' => intdiv(1, 0)],
            default => ['berths' => 7],
        };
    }
}
