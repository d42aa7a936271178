<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Delivery;
use App\Problems\Conflict;
use App\Queries\Review\SideMask;
use NineTally\Core\Plan\SideRules;

/** The rows that a step left out of the whole side, page by page, as they came into the step. */
final readonly class LeftOutRows
{
    private const PAGE = 100;

    public function __construct(private PreparedSides $sides, private DeliverySample $sample) {}

    /**
     * @param  int  $after  rows of the step that have been shown
     * @return array{step: int, columns: list<string>, rows: list<array{part: int, line: int, cells: list<string>}>, total: int,
     *     next: int|null}
     *
     * @throws Conflict while the side has not been prepared whole, or there is no such step
     */
    public function __invoke(
        Delivery $delivery,
        SideRules $rules,
        PreparationInputs $inputs,
        string $stepId,
        int $after,
        SideMask $mask,
    ): array {
        $side = $this->sides->of($delivery, $rules, $inputs);
        // A small delivery is prepared whole while a person waits, as its trial is.
        if (! $side->isWhole() && $this->sample->isWhole($delivery) && ! $this->sides->isReadAsDelivered($delivery, $rules)) {
            $this->sides->reader($delivery, $rules, $inputs);
        }
        $steps = $side->isWhole()
            ? array_column($side->ledger()->steps, null, 'id')
            : throw Conflict::because(
                'not-prepared',
                'The steps have been tried on a sample only. Run them on all rows to list what they leave out.',
            );
        $step =
            $steps[$stepId] ??
            throw Conflict::because('no-such-step', 'This step was not there when the side was prepared. Run the steps on all rows again.');
        $rows = [];
        $seen = 0;
        foreach ($step['figures']['leftOut'] === 0 ? [] : $side->leftOut() as $row) {
            if ($row->step !== $step['number'] || $seen++ < $after) {
                continue;
            }
            $rows[] = [
                'part' => $row->place()->part,
                'line' => $row->place()->line,
                'cells' => array_map(DeliveryReader::shortened(...), $row->cells),
            ];
            if (count($rows) === self::PAGE) {
                break;
            }
        }
        $shown = $after + count($rows);

        return [
            'step' => $step['number'],
            'columns' => $step['columns'],
            'rows' => $mask->behind($step['number'] - 1)->rows($step['columns'], $rows),
            'total' => $step['figures']['leftOut'],
            'next' => $shown < $step['figures']['leftOut'] && $rows !== [] ? $shown : null,
        ];
    }
}
