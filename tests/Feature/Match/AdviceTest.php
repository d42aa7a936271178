<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use App\Jobs\FindAnswer;
use App\Jobs\ProfileDelivery;
use App\Models\Answer;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\ColumnMatching;
use Database\Demo\Wherrymoor;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use Tests\TestCase;

/** What Nine Tally proposes for the plan, held against what is true about the demo. */
final class AdviceTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    private const LARGE = 20_000;

    public function test_what_is_answered_from_samples_waits_for_nothing_that_takes_long(): void
    {
        Queue::fake([ProfileDelivery::class]);
        $this->deliver('source', self::OLD, 'old.csv');
        $this->deliver('target', self::NEW, 'new.csv');
        Queue::assertPushedOn('profile', ProfileDelivery::class);
        self::assertCount(2, glob(storage_path('prepared/sample-*')) ?: [], 'A delivery comes with its sample.');

        Queue::fake([FindAnswer::class]);
        $this->match();
        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertOk()->assertJson(['keys' => ['isWaiting' => true]]);
        Queue::assertPushedOn('default', FindAnswer::class);
        Queue::assertPushedOn('quick', FindAnswer::class);
        // Which columns pair, which tell rows apart, which rows meet, what keeps the others apart, what stands as rows, and how values are
        // written.
        Queue::assertPushed(FindAnswer::class, 6);
    }

    #[Group('long')]
    #[DataProvider('largeDatasets')]
    public function test_finds_the_true_key_and_all_true_pairs_of_a_large_dataset(int $position): void
    {
        $this->test_finds_the_true_key_and_all_true_pairs_though_the_targets_names_say_nothing($position);
    }

    #[DataProvider('datasets')]
    public function test_finds_the_true_key_and_all_true_pairs_though_the_targets_names_say_nothing(int $position): void
    {
        $demo = Wherrymoor::datasets()[$position];
        $paths = Wherrymoor::generator($demo)->write(storage_path('work'));
        $target = (string) file_get_contents($paths['target']);
        $header = substr(
            $target,
            strlen($demo->files->targetBeginning),
            (int) strpos($target, "\n") - strlen($demo->files->targetBeginning),
        );
        $trueNames = array_map(static fn(string $name): string => trim($name), explode($demo->files->targetDelimiter, $header));
        $names = array_map(static fn(int $nth): string => 'c'.$nth, range(1, count($trueNames)));
        $this->deliver('source', (string) file_get_contents($paths['source']), 'old.csv');
        $this->deliver(
            'target',
            implode($demo->files->targetDelimiter, $names).
                "\n".
                substr($target, strlen($demo->files->targetBeginning) + strlen($header) + 1),
            'new.csv',
        );
        array_map(unlink(...), $paths);
        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertOk()->assertJson(['draft' => ['key' => [], 'columnPairs' => []]]);

        $advice = $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertOk();
        $true = array_filter($demo->columns->names, static fn(string $name): bool => $name !== '');
        $right = $wrongButStrong = 0;
        foreach ($this->objects($advice, 'pairs.proposals') as $proposal) {
            self::assertIsString($proposal['source']);
            self::assertIsString($proposal['target']);
            $isTrue = ($true[$proposal['source']] ?? '') === $trueNames[(int) substr($proposal['target'], 1) - 1];
            $right += $isTrue ? 1 : 0;
            $wrongButStrong += ! $isTrue && $proposal['strength'] === 'strong' ? 1 : 0;
        }
        self::assertSame([count($true), 0], [$right, $wrongButStrong]);
        $key = $this->objects($advice, 'keys.advised.0.columns');
        self::assertSame($demo->columns->key, array_column($key, 'source'));
        $advice->assertJsonPath('keys.advised.0.isOfAllRows', true);
        self::assertGreaterThan(0.97 * $demo->rows, $this->number($advice, 'keys.advised.0.meets'));
    }

    /** @return iterable<string, array{int}> */
    public static function datasets(): iterable
    {
        foreach (Wherrymoor::datasets() as $position => $dataset) {
            if ($dataset->rows < self::LARGE) {
                yield $dataset->name => [$position];
            }
        }
    }

    /** @return iterable<string, array{int}> */
    public static function largeDatasets(): iterable
    {
        foreach (Wherrymoor::datasets() as $position => $dataset) {
            if ($dataset->rows >= self::LARGE) {
                yield $dataset->name => [$position];
            }
        }
    }

    public function test_says_why_fewer_columns_do_not_tell_rows_apart_and_how_many_rows_meet(): void
    {
        $this->deliver('source', "basin,berth,note\nKB,1,x\nKB,2,x\nLM,1,x\nLM,2,y\n");
        $this->deliver('target', "basin,berth,note\nKB,1,x\nKB,2,x\nLM,1,x\nOT,7,y\n");

        $advice = $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertOk();
        $advice->assertJson([
            'keys' => [
                'isWaiting' => false,
                'advised' => [
                    [
                        'columns' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
                        'rows' => ['source' => 4, 'target' => 4],
                        'repeats' => ['source' => 0, 'target' => 0],
                        'meets' => 3,
                        'meetsShare' => '75.00 %',
                        'shorter' => [
                            ['without' => 'basin', 'repeats' => ['source' => 4, 'target' => 2]],
                            ['without' => 'berth', 'repeats' => ['source' => 4, 'target' => 2]],
                        ],
                    ],
                ],
            ],
        ]);
    }

    public function test_a_table_with_no_key_is_told_so(): void
    {
        $rows = str_repeat("KB,1\nLM,2\n", 30);
        $this->deliver('source', "basin,berth\n{$rows}");
        $this->deliver('target', "basin,berth\n{$rows}");

        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJson([
            'keys' => ['hasSearched' => true, 'isWaiting' => false, 'advised' => []],
        ]);
    }

    public function test_nothing_is_advised_before_both_sides_have_delivered(): void
    {
        $this->deliver('source', "basin,berth\nKB,1\n");

        $this->api('GET', "/datasets/{$this->dataset->id}/advice")
            ->assertOk()
            ->assertJson(['pairs' => ['proposals' => []], 'keys' => ['hasSearched' => false]]);
    }

    public function test_a_question_whose_worker_died_is_asked_again(): void
    {
        $this->deliver('source', "basin,berth\nKB,1\n");
        $this->deliver('target', "basin,berth\nKB,1\n");
        $question = new ColumnMatching(BothSides::of($this->dataset) ?? self::fail('Both sides have delivered.'));
        $answers = $this->app->make(Answers::class);
        $ask = fn(int $secondsAgo): string => $this->asked($answers, $question, $secondsAgo);

        self::assertSame('asked', $ask(10), 'A worker may still be at it.');
        self::assertSame('answered', $ask(600));
    }

    public function test_an_answer_that_was_given_up_is_found_when_it_is_asked_for_again(): void
    {
        $this->deliver('source', "basin,berth\nKB,1\n");
        $this->deliver('target', "basin,berth\nKB,1\n");
        $sides = BothSides::of($this->dataset) ?? self::fail('Both sides have delivered.');
        $answers = $this->app->make(Answers::class);
        $question = new ColumnMatching($sides);
        Answer::query()->create(['digest' => $answers->digest($question), 'kind' => $question->kind(), 'state' => 'asked']);

        $answers->cancel($question);
        self::assertSame('cancelled', $answers->to($question)->state);
        $this->api('POST', "/datasets/{$this->dataset->id}/advice")->assertOk();
        self::assertSame('answered', $answers->to($question)->state);
        $this->actingAs($this->owner)->api('POST', "/datasets/{$this->dataset->id}/advice")->assertForbidden();
        $this->api('DELETE', "/datasets/{$this->dataset->id}/advice")->assertForbidden();
    }

    /** @return string what becomes of a question that is said to be asked so long ago, when it is asked for */
    private function asked(Answers $answers, ColumnMatching $question, int $secondsAgo): string
    {
        Answer::query()->delete();
        DB::table('answers')->insert([
            'digest' => $answers->digest($question),
            'kind' => $question->kind(),
            'state' => 'asked',
            'created_at' => now()->subSeconds($secondsAgo),
            'updated_at' => now()->subSeconds($secondsAgo),
        ]);

        return $answers->to($question)->state;
    }
}
