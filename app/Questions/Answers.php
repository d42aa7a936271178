<?php

declare(strict_types=1);

namespace App\Questions;

use App\Jobs\FindAnswer;
use App\Models\Answer;

/** Answers that are there, and those that are being found. */
final readonly class Answers
{
    /** A worker tells how far it is every half second; one that has not for so long is dead, or was never there. */
    private const SILENT_SECONDS = 300;

    /** What is known; a worker is set to it where nothing is yet. */
    public function to(Question $question): Answer
    {
        // Looked for first: nearly always it is there, and an insert that fails would be written into the log.
        $answer =
            Answer::query()->find($this->digest($question)) ??
            Answer::query()->createOrFirst(['digest' => $this->digest($question)], ['kind' => $question->kind(), 'state' => 'asked']);
        $isSilent = $answer->isWaiting() && $answer->updated_at->lt(now()->subSeconds(self::SILENT_SECONDS));
        if ($answer->wasRecentlyCreated || $isSilent) {
            // The sign of life is set first, so that the next who asks does not queue it once more.
            $answer->touch();
            FindAnswer::dispatch($question);
            $answer->refresh();
        }

        return $answer;
    }

    /** Asked again where it could not be answered, or somebody gave it up. */
    public function again(Question $question): Answer
    {
        Answer::query()->whereKey($this->digest($question))->whereIn('state', ['failed', 'cancelled'])->delete();

        return $this->to($question);
    }

    public function cancel(Question $question): void
    {
        Answer::query()->whereKey($this->digest($question))->where('state', 'asked')->update(['state' => 'cancelled']);
    }

    public function digest(Question $question): string
    {
        return hash('sha256', json_encode([$question->kind(), $question->about()], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE));
    }
}
