<?php

declare(strict_types=1);

namespace Tests\Feature\Prove;

use App\Models\Tally;
use Tests\TestCase;

/** A sample of rows that agree, looked at by one person and by a second one. */
final class EyeCheckTest extends TestCase
{
    public function test_a_sample_is_looked_at_and_says_what_it_shows(): void
    {
        $tally = $this->agreeing();
        $offers = $this->api('GET', "/tallies/{$tally->id}/eye-checks")->assertOk();
        self::assertSame(['identical' => 200, 'byRule' => 100], $offers->json('populations'));

        $check = $this->drawn($tally, 0.95, 0.05);
        $shown = $this->api('GET', "/eye-checks/{$check}")->assertOk();
        $rows = $this->objects($shown, 'rows');
        [$identical, $byRule] = [$this->number($shown, 'check.strata.identical.rows'), $this->number($shown, 'check.strata.byRule.rows')];
        self::assertCount($identical + $byRule, $rows);
        foreach ($rows as $nth => $row) {
            self::assertSame([$nth + 1, $nth >= $identical], [$row['place'], $row['byRule']]);
            self::assertIsString($row['key']);
            // A third of the rows has its fee written otherwise.
            self::assertSame($row['byRule'], (int) explode(',', $row['key'])[1] % 3 === 0);
        }
        self::assertStringContainsString('Nothing is shown before', $this->words($check, 'identical'));

        $last = $this->api('GET', "/eye-checks/{$check}/rows/".count($rows))->assertOk();
        self::assertSame($rows[count($rows) - 1]['key'], $last->json('record.key'));
        self::assertStringStartsWith('  ', $this->text($last->json('delivered.source.cells.2')));

        foreach (range(1, $identical) as $place) {
            $this->say($check, $place, 'right');
        }
        self::assertSame(
            "All {$identical} are right: with a confidence of 95 % fewer than 5 % of the 200 rows are wrong.",
            $this->words($check, 'identical'),
        );
        $this->api('POST', "/eye-checks/{$check}/verdicts", ['place' => 1, 'verdict' => 'wrong'])->assertUnprocessable();
        $this->say($check, 2, 'wrong', 'the holder has another berth');
        self::assertStringStartsWith("1 of {$identical} is wrong, and one is enough", $this->words($check, 'identical'));
        // What somebody said last stands.
        $this->say($check, 2, 'right');
        self::assertStringStartsWith("All {$identical} are right", $this->words($check, 'identical'));
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertOk()->assertSeeInOrder(['Looked at by eye', "All {$identical} are right"]);
    }

    public function test_a_second_person_gets_the_same_rows_and_is_not_led(): void
    {
        $check = $this->drawn($this->agreeing(), 0.9, 0.05);
        $first = array_column($this->objects($this->api('GET', "/eye-checks/{$check}"), 'rows'), 'key');
        $this->say($check, 1, 'right');
        $this->api('POST', "/eye-checks/{$check}/people", ['person' => $this->owner->id])->assertOk();
        $stranger = $this->person('Nobody Here');
        $this->api('POST', "/eye-checks/{$check}/people", ['person' => $stranger->id])->assertConflict();

        $this->actingAs($this->owner);
        self::assertSame($check, $this->api('GET', '/for-me')->json('toLookAt.0.check'));
        $shown = $this->api('GET', "/eye-checks/{$check}");
        self::assertSame($first, array_column($this->objects($shown, 'rows'), 'key'));
        self::assertSame([], $shown->json('rows.0.others'));
        $this->say($check, 1, 'wrong', 'not what the deed says');
        self::assertSame(['right'], array_column((array) $this->api('GET', "/eye-checks/{$check}")->json('rows.0.others'), 'verdict'));
        self::assertSame(1, $this->api('GET', "/eye-checks/{$check}")->json('check.strata.identical.wrong'));

        $this->actingAs($stranger);
        $this->api('GET', "/eye-checks/{$check}")->assertNotFound();
    }

    private function agreeing(): Tally
    {
        [$old, $new] = ["basin,berth,fee\n", "basin,berth,fee,loaded\n"];
        foreach (range(1, 300) as $row) {
            $old .= "KB,{$row},  {$row}\n";
            $new .= "KB,{$row},".($row % 3 === 0 ? "{$row}.0" : "  {$row}").",t\n";
        }

        return $this->tallied($old, $new, [['source' => 'fee', 'target' => 'fee', 'kind' => 'number', 'forgives' => ['number-form']]]);
    }

    private function drawn(Tally $tally, float $confidence, float $share): int
    {
        return $this->number(
            $this->api('POST', "/tallies/{$tally->id}/eye-checks", ['confidence' => $confidence, 'share' => $share])->assertCreated(),
            'id',
        );
    }

    private function say(int $check, int $place, string $verdict, string $remark = ''): void
    {
        $this->api('POST', "/eye-checks/{$check}/verdicts", [
            'place' => $place,
            'verdict' => $verdict,
            'remark' => $remark,
        ])->assertNoContent();
    }

    private function words(int $check, string $stratum): string
    {
        return $this->text($this->api('GET', "/eye-checks/{$check}")->json("check.strata.{$stratum}.words"));
    }

    private function text(mixed $text): string
    {
        return is_string($text) ? $text : self::fail('This is a text.');
    }
}
