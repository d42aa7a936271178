<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Actions\Access\TrailChain;
use Illuminate\Console\Command;

/** Holds the trail against its chain: ends with 1 where something was changed. */
final class VerifyTrail extends Command
{
    protected $signature = 'nine-tally:trail {--verify : hold every entry against the chain}';

    protected $description = 'Links what is not yet linked of the trail, and says whether its chain holds';

    public function handle(TrailChain $chain): int
    {
        if ($this->option('verify') !== true) {
            $linked = $chain->link(all: true);
            $this->line("{$linked} entries linked.");

            return self::SUCCESS;
        }
        ['linked' => $linked, 'waiting' => $waiting, 'purged' => $purged, 'broken' => $broken] = $chain->verify();
        $this->line("{$linked} entries in the chain, {$waiting} not yet linked, {$purged} of which the words were purged.");
        $this->line($broken ?? 'The chain holds.');

        return $broken === null ? self::SUCCESS : self::FAILURE;
    }
}
