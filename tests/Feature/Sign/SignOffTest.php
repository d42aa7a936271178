<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use App\Models\Signature;
use App\Models\Tally;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** From limits to the third signature, and what must not be signed. */
final class SignOffTest extends TestCase
{
    use Signs;

    public function test_three_people_sign_what_they_were_shown_and_rulings_are_closed(): void
    {
        $tally = $this->tallied();
        $this->rule($tally, 'missing')->assertCreated();
        $this->sign($tally, $this->manager)->assertConflict()->assertJson(['code' => 'not-your-turn']);
        $this->sign($tally, $this->analyst, password: 'guessed')->assertUnprocessable();
        $this->sign($tally, $this->analyst)->assertCreated();
        $this->rule($tally, 'changed')->assertConflict()->assertJson(['code' => 'signed']);
        $this->sign($tally, $this->analyst)->assertConflict();
        $this->sign($tally, $this->manager)->assertCreated();
        $this->sign($tally, $this->owner)->assertCreated();

        $shown = $this->api('GET', "/tallies/{$tally->id}/sign-off")->assertOk();
        self::assertSame(['accepted', null], [$shown->json('state'), $shown->json('next')]);
        self::assertSame(['analyst', 'test manager', 'data owner'], array_column($this->objects($shown, 'signatures'), 'role'));
        $last = Signature::query()->latest('id')->firstOrFail();
        self::assertSame(
            'I accept tally 1 of Moorings: no limit is set; of 2 findings 1 expected, 0 defects, 0 asked, 1 without a ruling.',
            $last->words,
        );
        $content = (string) $this->api('GET', "/tallies/{$tally->id}/signatures/{$last->id}/state")->getContent();
        self::assertSame($last->digest, hash('sha256', $content));
        /** @var array{signatures: list<array{act: string}>} $state */
        $state = json_decode($content, true);
        self::assertSame(['prepared', 'checked'], array_column($state['signatures'], 'act'));
        // A later tally makes a sign-off of its own, and rulings go on there.
        $this->actingAs($this->analyst);
        $this->deliver('target', self::TARGET."KB,3,30\n", 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->rule($this->newest(), 'changed')->assertCreated();
        self::assertSame('accepted', $this->api('GET', "/tallies/{$tally->id}/sign-off")->json('state'));
        self::assertSame('none', $this->api('GET', "/tallies/{$this->newest()->id}/sign-off")->json('state'));
    }

    public function test_what_changed_since_it_was_shown_is_not_signed(): void
    {
        $tally = $this->tallied();
        $this->actingAs($this->analyst);
        $digest = $this->text($this->api('GET', "/tallies/{$tally->id}/sign-off"), 'mine.digest');
        $this->rule($tally, 'missing')->assertCreated();

        $this->sign($tally, $this->analyst, $digest)->assertConflict()->assertJson(['code' => 'changed-meanwhile']);
        self::assertSame(0, Signature::query()->count());
    }

    public function test_duties_are_apart_unless_the_migration_says_otherwise(): void
    {
        $tally = $this->tallied();
        // The data owner ruled, and is asked to accept it.
        $this->actingAs($this->owner);
        $this->rule($tally, 'missing')->assertCreated();
        $this->sign($tally, $this->analyst)->assertCreated();
        $this->sign($tally, $this->manager)->assertCreated();
        $refused = $this->sign($tally, $this->owner)->assertConflict();
        self::assertStringContainsString('1 ruling of yours stands', $this->text($refused, 'detail'));

        $this->actingAs($this->manager);
        $this->terms([], ['mayAcceptOwn' => true]);
        $this->sign($tally, $this->owner)->assertCreated();
    }

    public function test_a_sign_off_is_returned_or_withdrawn_with_a_reason_and_begins_anew(): void
    {
        $tally = $this->tallied();
        $this->sign($tally, $this->analyst)->assertCreated();
        $path = "/tallies/{$tally->id}/sign-off/ends";
        $this->actingAs($this->analyst);
        $this->api('POST', $path, ['act' => 'returned', 'reason' => 'not mine'])->assertConflict();
        $this->actingAs($this->manager);
        $this->api('POST', $path, ['act' => 'returned', 'reason' => ''])->assertUnprocessable();
        $this->api('POST', $path, ['act' => 'returned', 'reason' => 'rule on KB 2 first'])->assertOk()->assertJson(['state' => 'returned']);

        $this->actingAs($this->analyst);
        $this->rule($tally, 'changed')->assertCreated();
        $this->sign($tally, $this->analyst)->assertCreated();
        $this->api('POST', $path, ['act' => 'withdrawn', 'reason' => 'one more'])->assertOk();
        self::assertSame(
            [['prepared', false], ['returned', false], ['prepared', false], ['withdrawn', false]],
            array_map(
                static fn(array $one): array => [$one['act'], $one['stands']],
                $this->objects($this->api('GET', "/tallies/{$tally->id}/sign-off"), 'signatures'),
            ),
        );
    }

    public function test_who_signs_a_newer_tally_overtakes_what_is_open_on_an_older_one(): void
    {
        $old = $this->tallied();
        $this->sign($old, $this->analyst)->assertCreated();
        $this->actingAs($this->analyst);
        $this->deliver('target', self::TARGET."KB,3,30\n", 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        // Until then the older one can be signed to its end.
        self::assertSame('prepared', $this->api('GET', "/tallies/{$old->id}/sign-off")->json('state'));
        $this->sign($this->newest(), $this->analyst)->assertCreated();

        self::assertSame('overtaken', $this->api('GET', "/tallies/{$old->id}/sign-off")->json('state'));
        $this->sign($old, $this->manager)->assertConflict();
    }

    public function test_records_that_could_not_be_read_are_ruled_on_first(): void
    {
        $tally = $this->tallied(self::SOURCE."KB,4\n");
        $this->sign($tally, $this->analyst)->assertConflict()->assertJson(['code' => 'blocked']);
        $this->rule($tally, 'refused')->assertCreated();
        $this->sign($tally, $this->analyst)->assertCreated();
    }

    public function test_several_datasets_are_signed_together_or_none_is(): void
    {
        $one = $this->tallied();
        $this->dataset = $this->migration->datasets()->create(['name' => 'Berths']);
        $other = $this->tallied();
        $seen = [];
        foreach ([$one, $other] as $tally) {
            $seen[] = ['tally' => $tally->id, 'digest' => $this->text($this->api('GET', "/tallies/{$tally->id}/sign-off"), 'mine.digest')];
        }
        $path = "/migrations/{$this->migration->id}/signatures";
        $password = 'kept by the lock house';
        $wrong = [$seen[0], ['digest' => str_repeat('0', 64)] + $seen[1]];
        $this->api('POST', $path, ['items' => $wrong, 'password' => $password])->assertConflict();
        self::assertSame(0, Signature::query()->count());
        $this->api('POST', $path, ['items' => $seen, 'password' => $password])->assertCreated()->assertJsonCount(2, 'items');

        $this->migration->datasets()->create(['name' => 'Wharves']);
        $this->get("/api/v1/migrations/{$this->migration->id}/report")
            ->assertOk()
            ->assertSeeTextInOrder([
                '0 of 2 datasets that were tallied are accepted',
                'Wharves',
                'not tallied',
                'Berths',
                'prepared: Ruth Osei',
                'Moorings',
                'prepared: Ruth Osei',
            ]);
        $this->actingAs($this->manager);
        self::assertSame(['Berths', 'Moorings'], array_column($this->objects($this->api('GET', '/for-me'), 'toSign'), 'dataset'));
    }

    public function test_signatures_and_what_they_are_on_are_only_added(): void
    {
        $this->sign($this->tallied(), $this->analyst)->assertCreated();
        foreach (['signatures', 'signed_states', 'waivers', 'signing_terms'] as $table) {
            try {
                DB::transaction(static fn() => DB::table($table)->delete());
                self::fail("{$table} can be emptied.");
            } catch (QueryException $refused) {
                self::assertStringContainsString('permission denied', $refused->getMessage());
            }
        }
    }
}
