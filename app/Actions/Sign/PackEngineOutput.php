<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Tally\WriteTallyFolder;
use App\Models\Tally;
use NineTally\Core\Command\Launcher;
use NineTally\Core\Seal\BagWriter;
use Symfony\Component\Process\Process;

/**
 * Puts all that a tally was made of into a bag, and what the engine's own command line makes of it: whoever has the bag can have the same
 * made again, and hold the bytes against these.
 */
final readonly class PackEngineOutput
{
    public function __construct(private WriteTallyFolder $writeTallyFolder) {}

    /**
     * @param  string  $work  a folder for what is written aside until the bag is finished
     *
     * @throws \RuntimeException when the engine ends without a tally
     */
    public function __invoke(BagWriter $bag, Tally $tally, string $work): void
    {
        [$made, $out] = ["{$work}/tally", "{$work}/engine"];
        ($this->writeTallyFolder)($tally, $made);
        $process = new Process([...Launcher::command(), 'tally', "--from={$made}", "--out={$out}"], timeout: null);
        $process->disableOutput();
        // 1: there are differences.
        if ($process->run() > 1) {
            throw new \RuntimeException('The engine ended without a tally.');
        }
        foreach (['tally' => $made, 'engine' => $out] as $name => $folder) {
            foreach (glob("{$folder}/*") ?: [] as $file) {
                is_file($file) && $bag->file("{$name}/".basename($file), $file);
            }
        }
    }
}
