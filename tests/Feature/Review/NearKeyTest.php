<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\CorrectionSet;
use App\Models\Tally;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Missing and extra rows that are the same: proposed, ruled on in the draft, and joined by the next tally. */
final class NearKeyTest extends TestCase
{
    private const HOLDERS =
        "holder,name,street,since\n1,Ada Quill,3 Lock Street,2019-04-01\nH-17,Ezekiel Thornøy,12 Salt Quay,2018-02-03\n".
        "H-18,Hester Marrow,7 Heron Row,2020-05-06\nH-19,Wanda Ilse,1 Weir Lane,2017-01-09\nH-20,Otto Reed,88 Far Bank,2001-01-01\n";

    private const NEW_HOLDERS =
        "holder,name,street,since\n1,Ada Quill,3 Lock Street,2019-04-01\n90021,\"THORNOY, EZEKIEL\",12 Salt Quay,2018-02-03\n".
        "90022,Hestor Marrow,7 Heron Row,2020-05-07\n90023,W. Ilse,1 Weir Lane,2017-01-09\n90024,Wanda Ilse,2 Weir Lane,2017-01-19\n";

    protected function setUp(): void
    {
        parent::setUp();
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->actingAs($this->analyst);
        $this->deliver('source', self::HOLDERS);
        $this->deliver('target', self::NEW_HOLDERS);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('holder')],
            'columnPairs' => array_map($same, ['name', 'street', 'since']),
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
    }

    public function test_holders_are_bridged_one_is_refused_and_the_next_tally_joins_them(): void
    {
        $tally = $this->tallyAgain();
        $look = $this->look($tally, []);
        $look->assertJson(['isWaiting' => false, 'found' => [
            'all' => ['source' => 4, 'target' => 4],
            'counts' => ['pairs' => 3, 'open' => 3, 'clear' => 3],
        ]]);
        self::assertSame(
            ['name' => 'words', 'street' => 'words', 'since' => 'date'],
            array_column($this->objects($look, 'columns'), 'kind', 'source'),
            'The keys that the new system gave are alike by chance alone.',
        );
        self::assertSame([
            'H-17' => ['90021', 'same street and since; the words of name in another order'],
            'H-18' => ['90022', 'same street; name differs by one character; since one day apart'],
            'H-19' => ['90023', 'same street and since; an initial in name'],
        ], $this->pairs($look));

        $pairs = array_column($this->objects($look, 'found.items'), 'pair');
        self::assertCount(3, $pairs);
        $this->rule($tally, $look, ['decision' => 'confirmed', 'pairs' => array_slice($pairs, 0, 2)])->assertJson([
            'decided' => 2,
            'draft' => 2,
        ]);
        $this->rule($tally, $look, ['decision' => 'refused', 'pairs' => [$pairs[2]]], 2)->assertJson(['decided' => 1, 'draft' => 3]);
        $this->look($tally, ['state' => 'all'])->assertJson(['found' => ['counts' => ['open' => 0, 'confirmed' => 2, 'refused' => 1]]]);
        $this->rule($tally, $look, ['decision' => 'open', 'pairs' => [$pairs[1]]], 3);
        $this->look($tally, [])->assertJson(['found' => ['counts' => ['open' => 1, 'confirmed' => 1, 'refused' => 1], 'total' => 1]]);
        // All that are clear at once; of what somebody else saved in between nothing is lost.
        $this->rule($tally, $look, ['decision' => 'confirmed', 'score' => 0.7, 'margin' => 0.05], 3)->assertStatus(412);
        $this->rule($tally, $look, ['decision' => 'confirmed', 'score' => 0.7, 'margin' => 0.05], 4)->assertJson(['decided' => 1]);

        $next = $this->tallyAgain();
        self::assertSame([2, 2], [$next->summary['rows']['source']['missing'], $next->summary['rows']['target']['extra']]);
        $again = $this->look($next, ['score' => 0.5]);
        self::assertSame(
            ['H-19' => '90024'],
            array_map(static fn(array $pair): string => $pair[0], $this->pairs($again)),
            'One was refused.',
        );

        $this->bridgesAreAListThatSaysWhichSideIsRight();
    }

    public function test_two_that_should_not_be_alike_are_ruled_on_together_and_the_ruling_goes_on(): void
    {
        $tally = $this->tallyAgain();
        $pair = $this->objects($this->look($tally, []), 'found.items')[0];
        self::assertNull($pair['ruled']);
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'selection', 'decision' => 'defect', 'reason' => 'One person with two numbers', 'ticket' => 'WN-7', 'seenAct' => 0,
            'filter' => ['of' => 'rows', 'sequences' => [data_get($pair, 'source.sequence'), data_get($pair, 'target.sequence')]],
        ])->assertCreated();

        $ruled = static fn(array $items): array => array_column($items, 'ruled');
        self::assertSame(['defect', null, null], $ruled($this->objects($this->look($tally, []), 'found.items')));
        self::assertSame(['defect', null, null], $ruled($this->objects($this->look($this->tallyAgain(), []), 'found.items')));
    }

    private function bridgesAreAListThatSaysWhichSideIsRight(): void
    {
        $bridges = "/datasets/{$this->dataset->id}/bridges";
        $this->api('GET', $bridges)->assertOk()->assertJson(['total' => 2, 'draft' => 5, 'items' => [
            ['number' => 1, 'source' => ['H-17'], 'target' => ['90021'], 'right' => null, 'state' => 'differs', 'cells' => 1],
            ['number' => 2, 'source' => ['H-18'], 'target' => ['90022'], 'state' => 'differs', 'cells' => 2],
        ]]);
        $this->api('POST', "{$bridges}/rulings", ['numbers' => [2], 'decision' => 'source', 'seenDraft' => 5])->assertJson(['draft' => 6]);
        $this->api('POST', "{$bridges}/rulings", ['numbers' => [1], 'decision' => 'target', 'seenDraft' => 5])->assertStatus(412);
        self::assertSame(
            "source holder,target holder,right,correct in,column,stands,must\n".
            "H-17,90021,,,,,\nH-18,90022,source,target,holder,90022,H-18\n",
            $this->api('GET', "{$bridges}/file")->streamedContent(),
        );
        $this->api('POST', "{$bridges}/corrections")->assertCreated()->assertJson(['number' => 1, 'lines' => 1]);
        $this->tallyAgain();
        $this->theNextTallySaysWhetherTheKeyWasCorrected();
        $this->api('POST', "{$bridges}/rulings", ['numbers' => [1], 'decision' => 'removed', 'seenDraft' => 6])->assertOk();
        $this->api('GET', "{$bridges}?from=1")->assertJson(['total' => 1, 'items' => [['source' => ['H-18'], 'right' => 'source']]]);
    }

    public function test_bridges_are_edited_as_a_table_that_is_counted_before_it_is_taken(): void
    {
        $put = fn(string $table, bool $isWhole, bool $isTried, int $seen): TestResponse => $this->api(
            'PUT',
            "/datasets/{$this->dataset->id}/bridges/table",
            ['table' => $table, 'isWhole' => $isWhole, 'isTried' => $isTried, 'seenDraft' => $seen],
        );
        $put("Target;right;Source\n90021;;H-17\n90022;source;H-18\n", false, true, 1)
            ->assertOk()
            ->assertExactJson(['draft' => 1, 'counts' => ['added' => 2, 'changed' => 0, 'removed' => 0, 'total' => 2]]);
        $put("Target;right;Source\n90021;;H-17\n90022;source;H-18\n", false, false, 1)->assertJson(['draft' => 2]);
        $file = $this->api('GET', "/datasets/{$this->dataset->id}/bridges/file")->streamedContent();
        self::assertStringContainsString("H-17,90021,,,,,\nH-18,90022,source,", $file);

        $put(str_replace('H-17,90021,', 'H-19,90021,target', $file), true, false, 2)
            ->assertJson(['draft' => 3, 'counts' => ['added' => 1, 'changed' => 0, 'removed' => 1, 'total' => 2]]);
        // What is added takes the key of the target that another bridge had.
        $put("source,target\nH-20,90021\n", false, false, 3)->assertJson(['counts' => ['added' => 1, 'removed' => 1, 'total' => 2]]);
        $put("source,target\nH-20,90021\n", false, false, 3)->assertStatus(412);
        self::assertSame(
            [['H-18', '90022'], ['H-20', '90021']],
            array_map(
                static fn(array $bridge): array => [data_get($bridge, 'source.0'), data_get($bridge, 'target.0')],
                $this->objects($this->api('GET', "/datasets/{$this->dataset->id}/bridges"), 'items'),
            ),
        );

        $put("old,new\nH-20,90021\n", false, true, 4)
            ->assertUnprocessable()
            ->assertSee('It lacks \"source holder\", \"target holder\"', false);
        $refused = $put("source,target\nH-1,1\nH-1,2\n,3\n7,7\nH-2,1\n", false, false, 4)->assertUnprocessable();
        foreach (
            ['Line 3: the source key H-1', 'Line 4: the source key is blank', 'Line 5: both keys', 'Line 6: the target key 1']
            as $fault
        ) {
            $refused->assertSee($fault);
        }
    }

    private function theNextTallySaysWhetherTheKeyWasCorrected(): void
    {
        $corrections = "/datasets/{$this->dataset->id}/corrections";
        $this->api('GET', $corrections)->assertJson(['items' => [['lines' => 1, 'notDone' => 1]]]);
        $set = CorrectionSet::query()->where('dataset_id', $this->dataset->id)->firstOrFail();
        $this->api('GET', "{$corrections}/{$set->id}/lines")->assertJson(['items' => [[
            'action' => 'set-key', 'key' => ['holder' => '90022'], 'column' => 'holder', 'stands' => '90022', 'must' => 'H-18',
            'state' => 'not-done', 'ticket' => '',
        ]]]);
        $this->deliver('target', str_replace('90022', 'H-18', self::NEW_HOLDERS));
        $this->tallyAgain();
        $this->api('GET', $corrections)->assertJson(['items' => [['done' => 1, 'notDone' => 0]]]);
    }

    public function test_whoever_may_not_see_a_value_is_not_told_whom_it_is_like_and_who_only_looks_decides_nothing(): void
    {
        $tally = $this->tallyAgain();
        $look = $this->look($tally, []);
        $plan = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');
        self::assertIsArray($plan);
        $hidden = ['sensitive' => ['source' => ['name', 'holder'], 'target' => ['name', 'holder']]];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...array_intersect_key($plan, ['key' => 1, 'columnPairs' => 1, 'leftOut' => 1]),
            ...$hidden,
        ])->assertOk();

        $masked = $this->look($tally, []);
        self::assertSame(['street', 'since'], array_column($this->objects($masked, 'columns'), 'source'));
        self::assertStringNotContainsString('H-17', (string) $masked->getContent());
        self::assertStringNotContainsString('Thorn', (string) $masked->getContent());
        $this->api('POST', "/tallies/{$tally->id}/near-keys", ['columns' => $look->json('columns')])->assertForbidden();
        $this->api('POST', "/tallies/{$tally->id}/near-keys", ['columns' => [['kind' => 'sound'] + (array) $look->json('columns.0')]])
            ->assertUnprocessable();
        $this->actingAs($this->owner);
        $this->rule($tally, $masked, ['decision' => 'confirmed', 'pairs' => [[0, 0]]], 2)->assertForbidden();
    }

    public function test_a_look_that_takes_long_is_given_up_and_taken_up_again(): void
    {
        $tally = $this->tallyAgain();
        Queue::fake();
        $asked = ['columns' => [['source' => 'name', 'target' => 'name', 'kind' => 'name', 'weight' => 5]]];
        $this->look($tally, $asked)->assertJson(['isWaiting' => true, 'isCancelled' => false, 'found' => null]);
        $this->api('POST', "/tallies/{$tally->id}/near-keys/cancellation", $asked)->assertNoContent();
        $this->look($tally, $asked)->assertJson(['isWaiting' => false, 'isCancelled' => true]);
        $this->look($tally, ['again' => true, ...$asked])->assertJson(['isWaiting' => true, 'isCancelled' => false]);

        // Other words make another look, and are kept in the plan as they are compared.
        $this->api('PUT', "/tallies/{$tally->id}/near-keys/equivalents", [
            'equivalents' => [['word' => 'Straße', 'meaning' => 'St.'], ['word' => 'two words', 'meaning' => 'no']],
            'seenDraft' => 1,
        ])->assertOk()->assertJson(['draft' => 2]);
        $words = [['word' => 'strasse', 'meaning' => 'st']];
        $this->look($tally, $asked)->assertJson(['isWaiting' => true, 'equivalents' => $words]);
        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertJson(['draft' => ['equivalents' => $words]]);
    }

    /**
     * @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $look
     * @return array<array-key, array{string, string}> by key of the source: that of the target, and why
     */
    private function pairs(TestResponse $look): array
    {
        $pairs = [];
        foreach ($this->objects($look, 'found.items') as $item) {
            $read = static fn(string $path): string => is_string($text = data_get($item, $path))
                ? $text
                : self::fail("{$path} is no text.");
            $pairs[$read('source.key')] = [$read('target.key'), $read('reason')];
        }
        ksort($pairs);

        return $pairs;
    }

    /**
     * @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $look
     * @param  array<string, mixed>  $body
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function rule(Tally $tally, TestResponse $look, array $body, int $seen = 1): TestResponse
    {
        return $this->api('POST', "/tallies/{$tally->id}/near-keys/rulings", [
            'columns' => $look->json('columns'),
            'seenDraft' => $seen,
            ...$body,
        ]);
    }

    /**
     * @param  array<string, mixed>  $body
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function look(Tally $tally, array $body): TestResponse
    {
        return $this->api('POST', "/tallies/{$tally->id}/near-keys", $body)->assertOk();
    }

    private function tallyAgain(): Tally
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? self::fail('There is no tally.');
    }
}
