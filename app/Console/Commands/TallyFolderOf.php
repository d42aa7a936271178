<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Actions\Tally\WriteTallyFolder;
use App\Models\Tally;
use App\Queries\Tally\FolderOfTally;
use Illuminate\Console\Command;

/** Writes what a tally was made of into a folder, and prints the one command that makes the tally again from it. */
final class TallyFolderOf extends Command
{
    protected $signature = 'nine-tally:folder {tally : the number of the tally in its address} {folder : a folder that is not there yet}';

    protected $description = 'Writes what a tally was made of into a folder, from which the command line makes it again';

    public function handle(WriteTallyFolder $write): int
    {
        $number = $this->argument('tally');
        $tally = ctype_digit((string) $number) ? Tally::query()->find((int) $number) : null;
        if ($tally === null) {
            $this->error(sprintf('There is no tally %s. Its number is the last one in the address of the tally.', $number));

            return self::FAILURE;
        }
        $folder = (string) $this->argument('folder');
        try {
            $write($tally, $folder);
        } catch (\RuntimeException $problem) {
            $this->error($problem->getMessage());

            return self::FAILURE;
        }
        $this->line('Make the tally again with:');
        $this->line('  '.FolderOfTally::command($folder));

        return self::SUCCESS;
    }
}
