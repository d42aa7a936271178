<?php

declare(strict_types=1);

namespace Tests\Feature\Wording;

use Tests\TestCase;

/** What reaches a person is said in their words: no braces, no names of properties, no JSON pointers, no words of a validator. */
final class PlainWordsTest extends TestCase
{
    /** What only who writes programs reads, by what it is. */
    private const FOREIGN = [
        'a brace' => '/[{}]/',
        'the name of a property' => '/\b[a-z]+[A-Z]\w*/',
        'a JSON pointer' => '#(?<![\w.<])/(?:sides|key|columnPairs|references|totals|limits|[a-z]+/\d)\b#',
        'a word of a validator' =>
            '/\b(?:are missing|additional properties|required propert\w*|the .{1,40} field|must match|does not match the)\b/i',
        'a class' => '/\b(?:App|NineTally|Illuminate)\\\\/',
    ];

    private const NONSENSE = [
        'name' => ['x'],
        'side' => 'middle',
        'fileName' => 7,
        'bytes' => 'many',
        'decision' => 'perhaps',
        'scope' => 'all',
        'askedId' => 'she',
        'seenAct' => 'late',
        'columns' => 'fee',
        'key' => 'basin',
        'columnPairs' => 'none',
        'leftOut' => 3,
        'parts' => 'two',
        'rowsClaimed' => 'ten',
        'filter' => ['sequences' => 'all'],
        'sql' => 7,
        'document' => 'x',
        'sides' => 'both',
        'limits' => 'none',
        'target' => [],
        'reason' => [],
    ];

    public function test_a_request_that_lacks_everything_is_answered_in_plain_words(): void
    {
        $tally = $this->tallied();
        $dataset = $tally->dataset_id;
        $this->actingAs($this->analyst);
        $answered = 0;
        foreach (
            [
                "POST /datasets/{$dataset}/receipts", "POST /datasets/{$dataset}/deliveries", "PUT /datasets/{$dataset}/plan",
                "POST /datasets/{$dataset}/key-counts", "POST /datasets/{$dataset}/kept-filters", "POST /datasets/{$dataset}/runs",
                "POST /tallies/{$tally->id}/rulings", "POST /tallies/{$tally->id}/comments",
                "POST /migrations/{$tally->dataset->migration_id}/datasets", "POST /datasets/{$dataset}/preparation-trials",
                "PUT /datasets/{$dataset}/limits", "POST /datasets/{$dataset}/snapshots",
                "POST /tallies/{$tally->id}/eye-checks", "POST /datasets/{$dataset}/starting-plans",
                "POST /datasets/{$dataset}/plan-imports",
            ]
            as $asked
        ) {
            [$method, $address] = explode(' ', $asked);
            foreach ([[], self::NONSENSE] as $body) {
                $answer = $this->api($method, $address, $body);
                if ($answer->getStatusCode() !== 422) {
                    continue;
                }
                $answered++;
                $errors = array_column((array) $answer->json('errors'), 'detail');
                foreach ([$answer->json('title'), $answer->json('detail'), ...$errors] as $said) {
                    $this->isPlain(is_string($said) ? $said : '', $asked);
                }
            }
        }
        self::assertGreaterThan(10, $answered);
    }

    public function test_each_error_that_is_known_is_said_in_plain_words(): void
    {
        preg_match_all('/^\| `[a-z-]+` \| (.+) \|$/m', (string) file_get_contents(base_path('docs/reference/errors.md')), $lines);
        self::assertGreaterThan(25, count($lines[1]));
        foreach ($lines[1] as $line) {
            // What somebody wrote stands between quotes, and names of files between backticks.
            $this->isPlain((string) preg_replace('/"[^"]*"|`[^`]*`/', '', $line), $line);
        }
    }

    public function test_a_word_that_is_foreign_is_found(): void
    {
        foreach (
            [
                'Plan, at "/sides/source/0": no',
                'Fill in seenAct.',
                'The required properties (entries) are missing',
                'The name field is required.',
            ]
            as $foreign
        ) {
            self::assertNotSame([], $this->foreignIn($foreign), $foreign);
        }
    }

    private function isPlain(string $said, string $where): void
    {
        self::assertSame([], $this->foreignIn($said), "{$where} says: {$said}");
    }

    /** @return list<string> */
    private function foreignIn(string $said): array
    {
        return array_keys(array_filter(self::FOREIGN, static fn(string $pattern): bool => preg_match($pattern, $said) === 1));
    }
}
