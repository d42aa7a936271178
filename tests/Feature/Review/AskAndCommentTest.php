<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Ruling;
use App\Models\Tally;
use Tests\TestCase;

/** What people ask each other about findings, and say about them. */
final class AskAndCommentTest extends TestCase
{
    public function test_what_somebody_is_asked_waits_for_them_until_it_no_longer_stands(): void
    {
        $tally = $this->tallied();
        $act = $this->ask($tally, [
            'scope' => 'class',
            'target' => 'extra',
            'reason' => 'is Wanda ours?',
            'ticket' => 'WM-7',
            'askedId' => $this->owner->id,
        ]);

        self::assertSame([], $this->api('GET', '/for-me')->json('asked'));
        $this->actingAs($this->owner);
        $this->api('GET', '/for-me')
            ->assertOk()
            ->assertJson([
                'asked' => [
                    [
                        'act' => $act,
                        'dataset' => 'Moorings',
                        'tally' => $tally->id,
                        'findings' => 1,
                        'by' => 'Ruth Osei',
                        'reason' => 'is Wanda ours?',
                        'ticket' => 'WM-7',
                    ],
                ],
            ]);
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class',
            'target' => 'extra',
            'decision' => 'expected',
            'reason' => 'she is',
            'seenAct' => $act,
        ])->assertCreated();
        $this->api('GET', '/for-me')->assertJsonCount(0, 'asked');
    }

    public function test_only_members_of_the_migration_are_asked_and_mentioned(): void
    {
        $tally = $this->tallied();
        $stranger = $this->person('Nils Hjort');

        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class',
            'target' => 'extra',
            'decision' => 'ask',
            'reason' => 'as agreed',
            'askedId' => $stranger->id,
            'seenAct' => 0,
        ])->assertUnprocessable();
        $this->api('POST', "/tallies/{$tally->id}/comments", [
            'kind' => 'row',
            'target' => '5',
            'text' => 'Look',
            'mentions' => [$stranger->id],
        ])->assertUnprocessable();
        $this->api('GET', "/migrations/{$this->migration->id}/people")->assertExactJson([
            'items' => [
                ['id' => $this->analyst->id, 'name' => 'Ruth Osei', 'role' => 'analyst', 'mayWork' => true, 'mayRule' => true],
                ['id' => $this->owner->id, 'name' => 'Tove Lindqvist', 'role' => 'data owner', 'mayWork' => false, 'mayRule' => true],
            ],
        ]);
    }

    public function test_comments_stay_with_their_finding_and_their_pattern_from_tally_to_tally(): void
    {
        $first = $this->tallied();
        $about = fn(Tally $tally, string $kind, string $target): mixed => array_column(
            $this->objects($this->api('GET', "/tallies/{$tally->id}/comments?kind={$kind}&target={$target}"), 'items'),
            'text',
        );
        $patternOf = function (Tally $tally, string $cause): string {
            $number =
                array_column($this->objects($this->api('GET', "/tallies/{$tally->id}"), 'patterns'), 'number', 'cause')[$cause] ?? null;

            return is_int($number) ? (string) $number : self::fail("There is no pattern of {$cause}.");
        };
        $this->api('POST', "/tallies/{$first->id}/comments", [
            'kind' => 'row',
            'target' => '10',
            'text' => 'Tove, do you know Wanda?',
            'mentions' => [$this->owner->id],
        ])
            ->assertCreated()
            ->assertJson(['person' => 'Ruth Osei', 'mentioned' => ['Tove Lindqvist'], 'tally' => 1]);
        $this->api('POST', "/tallies/{$first->id}/comments", [
            'kind' => 'pattern',
            'target' => $patternOf($first, 'case'),
            'text' => 'The loader capitalises.',
            'mentions' => [],
        ])->assertCreated();
        // One more row is missing before it, so that the row has another number in the next tally.
        $this->deliver('target', str_replace("KB,015,Ann Lee,10.5,t\n", '', self::NEW), 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $second = $this->dataset->latestTally() ?? self::fail('There is no second tally.');

        self::assertSame(['Tove, do you know Wanda?'], $about($second, 'row', (string) $this->sequenceOf($second, 'OT,9')));
        self::assertSame(['The loader capitalises.'], $about($second, 'pattern', $patternOf($second, 'case')));
        self::assertSame([], $about($second, 'row', (string) $this->sequenceOf($second, 'NQ,8')));
        $this->actingAs($this->owner);
        $this->api('GET', '/for-me')->assertJson([
            'mentioned' => [
                [
                    'dataset' => 'Moorings',
                    'tally' => $first->id,
                    'kind' => 'row',
                    'target' => '10',
                    'text' => 'Tove, do you know Wanda?',
                    'by' => 'Ruth Osei',
                ],
            ],
        ]);
    }

    private function sequenceOf(Tally $tally, string $key): int
    {
        return $this->number($this->api('GET', "/tallies/{$tally->id}/keys?find=".rawurlencode($key)), 'items.0.sequence');
    }

    /** @param array<string, mixed> $act */
    private function ask(Tally $tally, array $act): int
    {
        return $this->number(
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                'decision' => 'ask',
                'seenAct' => Ruling::newestOn($tally),
                ...$act,
            ])->assertCreated(),
            'id',
        );
    }
}
