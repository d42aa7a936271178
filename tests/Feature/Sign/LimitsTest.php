<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use Symfony\Component\HttpFoundation\Response;
use Tests\TestCase;

/** What is good enough, as it stood when the run began; and what is let pass all the same. */
final class LimitsTest extends TestCase
{
    use Signs;

    public function test_limits_count_as_they_stood_when_the_run_began_and_the_plan_makes_exceptions(): void
    {
        $this->actingAs($this->manager);
        $this->terms([['figure' => 'rows-missing', 'worst' => '0'], ['figure' => 'rows-extra', 'worst' => '0']]);
        $tally = $this->tallied();
        self::assertSame(
            [['rows-missing', 'fails', '1', '1 beyond', true], ['rows-extra', 'holds', '0', 'none left', true]],
            $this->limits($tally),
        );
        // What is said now counts from the next run on.
        $this->actingAs($this->manager);
        $this->terms([]);
        $this->setLimits([['figure' => 'rows-missing', 'worst' => '2']]);
        self::assertCount(2, $this->limits($tally));

        $this->actingAs($this->analyst);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame([['rows-missing', 'holds', '1', '1 left', false]], $this->limits($this->newest()));
    }


    public function test_nobody_sets_limits_in_passing_and_what_makes_no_sense_is_refused_with_its_place(): void
    {
        $this->tallied();
        $path = "/datasets/{$this->dataset->id}/limits";
        $draft = $this->number($this->api('GET', $path), 'draft');
        $body = ['limits' => [['figure' => 'rows-missing', 'worst' => '0']], 'draft' => $draft];
        $this->api('PUT', $path, $body)->assertForbidden();

        $this->actingAs($this->manager);
        $this->api('PUT', $path, ['limits' => [['figure' => 'rows-missing', 'worst' => '0.5']], 'draft' => $draft])->assertUnprocessable();
        $this->api('PUT', $path, $body)->assertOk();
        $this->api('PUT', $path, $body)->assertStatus(Response::HTTP_PRECONDITION_FAILED);

        // The plan of the analyst carries none, and those of the test manager stay.
        $this->actingAs($this->analyst);
        $this->match([['source' => 'fee', 'target' => 'fee']]);
        self::assertSame($body['limits'], $this->api('GET', $path)->json('limits'));
    }


    public function test_a_limit_that_fails_is_waived_by_the_data_owner_for_this_figure_alone(): void
    {
        $this->actingAs($this->manager);
        $this->terms([['figure' => 'rows-missing', 'worst' => '0']]);
        $tally = $this->tallied();
        $this->sign($tally, $this->analyst)->assertCreated();
        $this->sign($tally, $this->manager)->assertCreated();
        $refused = $this->sign($tally, $this->owner)->assertConflict()->assertJson(['code' => 'blocked']);
        self::assertStringContainsString('Rows missing: at most 0, and it is 1.', $this->text($refused, 'detail'));
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertOk()->assertSeeTextInOrder([
            'Moorings is not good enough: 1 of 1 limits fails', 'It waits to be accepted by a data owner.',
        ]);
        $waiver = ['limit' => 'rows-missing', 'reason' => 'KB 3 was sold', 'endsOn' => now()->format('Y-m-d'), 'ticket' => 'WH-12'];
        $this->actingAs($this->manager);
        $this->api('POST', "/tallies/{$tally->id}/waivers", $waiver)->assertForbidden();
        $this->actingAs($this->owner);
        $this->api('POST', "/tallies/{$tally->id}/waivers", ['endsOn' => '2020-01-01'] + $waiver)->assertUnprocessable();
        $waived = $this->api('POST', "/tallies/{$tally->id}/waivers", $waiver)->assertOk();
        self::assertSame(['WH-12', 'fails'], [$waived->json('limits.0.waiver.ticket'), $waived->json('limits.0.state')]);
        $this->sign($tally, $this->owner)->assertCreated();
        $this->get("/api/v1/tallies/{$tally->id}/report")
            ->assertOk()
            ->assertSeeTextInOrder([
                'Moorings is accepted, with 1 of its limits waived',
                'Accepted by Tove Lindqvist, data owner, on',
                'Waived by Tove Lindqvist until',
                'KB 3 was sold (WH-12)',
                'no, waived',
                'Ruth Osei',
                'I have prepared tally 1 of Moorings',
                'no qualified signatures',
            ]);

        // Long after, what was accepted is as it was, though the waiver is over.
        $this->travel(40)->days();
        self::assertSame('WH-12', $this->api('GET', "/tallies/{$tally->id}/sign-off")->json('limits.0.waiver.ticket'));
        $this->travelBack();

        // One row more is missing: that is worse than what was waived.
        $this->actingAs($this->analyst);
        $this->deliver('target', "basin,berth,fee\nKB,1,10\n", 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertNull($this->api('GET', "/tallies/{$this->newest()->id}/sign-off")->json('limits.0.waiver'));
    }

    public function test_a_limit_is_narrowed_to_a_part_of_a_side(): void
    {
        $this->actingAs($this->analyst);
        $this->takeParts(
            'source',
            $this->received('north.csv', "basin,berth,fee\nKB,1,10\nKB,2,20\nKB,2,20\nbroken,row\n"),
            $this->received('south.csv', "basin,berth,fee\nLM,1,5\nLM,1,5\nLM,1,5\n,,4\n"),
        )->assertAccepted();
        $this->deliver('target', "basin,berth,fee\nKB,1,10\nKB,2,20\nLM,1,5\n");
        $this->match([['source' => 'fee', 'target' => 'fee']]);
        $this->actingAs($this->manager);
        $limits = [];
        foreach (['rows-repeated', 'rows-unkeyed', 'rows-refused'] as $figure) {
            foreach (['source 1', 'source 2', 'target 1', 'source 3'] as $of) {
                $limits[] = ['figure' => $figure, 'of' => $of, 'worst' => '9'];
            }
        }
        $this->setLimits($limits);
        $choices = $this->objects($this->api('GET', "/datasets/{$this->dataset->id}/limits"), 'choices');
        self::assertSame(
            ['part 1 of the source, north.csv', 'part 2 of the source, south.csv'],
            array_column((array) array_column($choices, 'of', 'figure')['rows-refused'], 'words'),
        );
        $this->actingAs($this->analyst);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $values = array_column($this->limits($this->newest()), 2);
        sort($values);
        self::assertSame(['0', '0', '0', '0', '1', '1', '2', '2', '3'], array_slice($values, 0, 9));
        self::assertCount(3, array_filter($values, static fn(mixed $value): bool => $value === 'no figure: the delivery has no such part'));
    }
}
