<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use App\Models\Role;
use App\Models\User;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Two analysts work on one plan: neither overwrites what the other did. */
final class DraftsOfTwoTest extends TestCase
{
    private User $second;

    protected function setUp(): void
    {
        parent::setUp();
        $this->second = $this->person('Jonas Havelund');
        $this->migration->memberships()->create(['user_id' => $this->second->id, 'role' => Role::Analyst]);
        $this->actingAs($this->analyst);
        $this->deliver('source', self::OLD, 'old.csv');
        $this->deliver('target', self::NEW, 'new.csv');
        $this->match();
    }

    public function test_a_draft_is_saved_against_the_number_that_was_seen(): void
    {
        $seen = $this->number($this->plan(), 'number');
        $this->save(['fee' => ['kind' => 'number']], $seen)->assertOk()->assertJsonPath('number', $seen + 1);
        $this->actingAs($this->second);
        $this->save(['holder' => ['forgives' => ['case']]], $seen)
            ->assertStatus(412)
            ->assertJson(['code' => 'draft-changed']);
        self::assertSame('number', $this->plan()->json('draft.columnPairs.1.kind'));
        self::assertNull($this->plan()->json('draft.columnPairs.0.forgives'));
        // Whoever says no number overwrites knowingly.
        $this->save(['holder' => ['forgives' => ['case']]], null)->assertOk();
    }

    public function test_changes_that_do_not_meet_are_joined_and_those_that_do_are_chosen(): void
    {
        $base = $this->plan()->json('draft');
        $seen = $this->number($this->plan(), 'number');
        $this->save(['fee' => ['kind' => 'number']], $seen)->assertOk();
        $this->actingAs($this->second);
        $this->join($base, ['holder' => ['forgives' => ['case']]])->assertOk()->assertJson([
            'number' => $seen + 1,
            'by' => 'Ruth Osei',
            'theirChanges' => ['fee is read as number, no longer as text'],
            'clashes' => [],
            'draft' => ['columnPairs' => [['forgives' => ['case']], ['kind' => 'number']]],
        ]);
        $clash = $this->join($base, ['fee' => ['kind' => 'date']])->assertJson([
            'clashes' => [['mine' => 'fee is read as date, no longer as number', 'theirs' => 'fee is read as number, no longer as date']],
        ]);
        $settled = $this->join($base, ['fee' => ['kind' => 'date']], ['mine' => [$clash->json('clashes.0.at')]])->assertJson([
            'clashes' => [],
            'draft' => ['columnPairs' => [['source' => 'holder'], ['kind' => 'date']]],
        ]);
        $this->json('PUT', "/api/v1/datasets/{$this->dataset->id}/plan", (array) $settled->json('draft'), [
            'If-Match' => '"'.($seen + 1).'"',
        ])->assertOk();
        self::assertSame('date', $this->plan()->json('draft.columnPairs.1.kind'));
    }

    public function test_how_a_reference_is_read_is_kept_with_the_draft(): void
    {
        $step = ['id' => 't', 'kind' => 'tidy-text', 'columns' => ['code'], 'actions' => [['action' => 'upper']]];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...$this->changed([]),
            'references' => ['Basins' => ['preparation' => [$step]]],
        ])->assertOk();

        self::assertSame('t', $this->plan()->json('draft.references.Basins.preparation.0.id'));
    }

    public function test_a_page_learns_what_others_did_from_one_small_address(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('There is no tally.');
        $news = fn(): TestResponse => $this->api('GET', "/datasets/{$this->dataset->id}/news")->assertOk();
        $news()->assertJson(['tally' => ['id' => $tally->id, 'by' => 'Ruth Osei'], 'act' => null, 'draft' => ['by' => 'Ruth Osei']]);
        $this->actingAs($this->second)->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class', 'target' => 'missing', 'decision' => 'defect', 'reason' => 'lost', 'seenAct' => 0,
        ])->assertCreated();

        $news()->assertJson(['act' => ['by' => 'Jonas Havelund', 'decision' => 'defect', 'findings' => 1]]);
        $this->actingAs($this->person('Somebody Else'))->api('GET', "/datasets/{$this->dataset->id}/news")->assertNotFound();
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function plan(): TestResponse
    {
        return $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertOk();
    }

    /**
     * @param  array<string, array<string, mixed>>  $mine  rules by source column
     * @param  array<string, list<mixed>>  $settled
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function join(mixed $base, array $mine, array $settled = []): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/draft-joins", [
            'base' => $base, 'mine' => $this->changed($mine), ...$settled === [] ? [] : ['settled' => $settled],
        ]);
    }

    /**
     * @param  array<string, array<string, mixed>>  $rules  by source column
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function save(array $rules, ?int $seen): TestResponse
    {
        return $this->json(
            'PUT',
            "/api/v1/datasets/{$this->dataset->id}/plan",
            $this->changed($rules),
            $seen === null ? [] : ['If-Match' => "\"{$seen}\""],
        );
    }

    /**
     * @param  array<string, array<string, mixed>>  $rules  by source column
     * @return array<string, mixed> the plan of match() with other rules
     */
    private function changed(array $rules): array
    {
        $pair = static fn(string $source, string $target): array => [
            'source' => $source, 'target' => $target, 'kind' => 'text', ...$rules[$source] ?? [],
        ];

        return [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [$pair('holder', 'owner'), $pair('fee', 'fee')],
            'leftOut' => ['source' => [], 'target' => ['loaded']],
        ];
    }
}
