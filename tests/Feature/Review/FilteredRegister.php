<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Ruling;
use App\Models\Tally;
use App\Rulings\FindingSet\Filter;

/** What FilterTest and RuleOnFilterTest have in common. */
trait FilteredRegister
{
    /** Rows on both sides, of which many differ in one cell or two; some more stand on one side only. */
    private function register(int $rows = 300): Tally
    {
        [$source, $target] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        for ($row = 1; $row <= $rows; $row++) {
            $key = [['KB', 'LM', '"a,""b"'][$row % 3], (string) $row];
            $holder = [' Anna ', 'Ezekiel Thornøy', 'Osei'][intdiv($row, 3) % 3];
            $source .= implode(',', [...$key, $holder, $row % 4 === 0 ? '' : '1'])."\n";
            $target .=
                implode(',', [
                    ...$key,
                    $row % 2 === 0 ? mb_strtoupper($holder) : $holder.'x',
                    $row % 4 === 0 || $row % 5 === 0 ? '2' : '1',
                    't',
                ])."\n";
        }
        for ($row = 1; $row <= 14; $row++) {
            $source .= "LM,s{$row},,\n";
            $target .= "KB,t{$row},,,\n";
        }

        return $this->tallied($source, $target);
    }

    /** @return list<array<string, mixed>> every finding of a filter, page by page */
    private function all(Tally $tally, string $filter): array
    {
        $findings = [];
        $from = 1;
        while ($from !== null) {
            $page = $this->api('GET', "/tallies/{$tally->id}/findings?{$filter}&from={$from}&limit=150")->assertOk();
            $findings = [...$findings, ...$this->objects($page, 'items')];
            $from = $page->json('next');
            self::assertTrue($from === null || is_int($from));
        }

        return $findings;
    }

    /** @param array<string, mixed> $act */
    private function rule(Tally $tally, array $act): int
    {
        return $this->number(
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                'reason' => 'as agreed',
                'askedId' => $this->owner->id,
                'seenAct' => Ruling::newestOn($tally),
                ...$act,
            ])->assertCreated(),
            'id',
        );
    }
}
