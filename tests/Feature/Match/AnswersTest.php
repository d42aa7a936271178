<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use App\Models\Answer;
use App\Questions\Answers;
use Tests\Support\QuestionOfTests;
use Tests\TestCase;

/** A worker finds the answer to a question while somebody waits for it: what becomes of it when that does not go well. */
final class AnswersTest extends TestCase
{
    public function test_a_worker_stops_when_the_question_was_given_up(): void
    {
        self::assertSame(['cancelled', null, null], $this->told(QuestionOfTests::givenUp()));
    }

    public function test_what_cannot_be_found_says_why_and_can_be_asked_again(): void
    {
        self::assertSame(['failed', null, 'The lock house is closed. Come back in the morning.'], $this->told(QuestionOfTests::refused()));
        self::assertSame(
            ['failed', null, 'The lock house is closed. Come back in the morning.'],
            $this->told(QuestionOfTests::refused()),
            'Nobody asks again by looking.',
        );
        self::assertSame('failed', app(Answers::class)->again(QuestionOfTests::refused())->state);
        self::assertSame(2, QuestionOfTests::$timesAsked);
    }

    public function test_a_worker_that_meets_what_nobody_expected_says_whom_to_tell(): void
    {
        try {
            $this->told(QuestionOfTests::broken());
            self::fail('The queue has to know, so that it tries once more.');
        } catch (\DivisionByZeroError) {
            self::assertSame(
                ['failed', null, 'This could not be found out to its end. Tell whoever runs Nine Tally.'],
                $this->told(QuestionOfTests::broken()),
            );
        }
    }

    public function test_an_answer_is_found_once(): void
    {
        self::assertSame(
            array_fill(0, 3, ['answered', ['berths' => 7], null]),
            array_map(fn(): array => $this->told(QuestionOfTests::answered()), range(1, 3)),
        );
        self::assertSame([1, 1], [QuestionOfTests::$timesAsked, Answer::query()->count()]);
    }

    /** @return array{string, mixed, string|null} state, content and problem */
    private function told(QuestionOfTests $question): array
    {
        $answer = app(Answers::class)->to($question);

        return [$answer->state, $answer->content, $answer->problem];
    }

    protected function setUp(): void
    {
        parent::setUp();
        config(['nine-tally.seconds_between_reports' => 0.0]);
        QuestionOfTests::$timesAsked = 0;
    }
}
