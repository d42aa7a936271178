<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\CorrectionSet;
use App\Models\Dataset;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\BridgedKeys;
use Illuminate\Database\Connection;

/** Makes corrections of the keys that bridges join, where somebody said that the source's is right: the target has to set its own. */
final readonly class CorrectBridgedKeys
{
    public function __construct(private Connection $database, private BridgedKeys $bridges, private EnterCorrections $enter) {}

    /** @throws Conflict where of no bridge it is said that the source is right */
    public function __invoke(Dataset $dataset, User $person): CorrectionSet
    {
        return $this->database->transaction(function () use ($dataset, $person): CorrectionSet {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $tally = $dataset->latestTally() ?? throw Conflict::because('no-tally', 'There is no tally yet.');
            $lines = $this->bridges->correctionLines($dataset);

            return ($this->enter)(
                $tally,
                [],
                count($lines),
                $lines,
                $person,
                'Of no bridge it is said that the source is right, so there is no key that the target has to set. What the source '.
                    'itself has to correct stands in the file.',
            );
        });
    }
}
