<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\ReferenceTable;

/** What StepsTest and UnusableStepsTest have in common. */
trait StepSamples
{
    private const COLUMNS = ['basin', 'berth', 'fee', 'paid'];

    private const ROWS = [
        ['KB', '014', '1.412,60', '31/03/2027'],
        [' kb ', '', 'n/a', ''],
        ['LM', '2', '', '29/02/2027'],
        ['', '', '', ''],
    ];

    private static function references(): References
    {
        return new class () implements References {
            public function ledgers(): array
            {
                return [];
            }

            public function named(string $name): ReferenceTable
            {
                return $name === 'basins'
                    ? new ReferenceTable(
                        $name,
                        ['code', 'name'],
                        [['KB', 'Kestrel Broad'], ['LM', 'Lime Mere'], ['LM', 'Long Mere'], ['', '']],
                    )
                    : new ReferenceTable($name, ['from', 'until', 'band'], [['9', '', 'long'], ['5', '9.5', 'short']]);
            }
        };
    }
}
