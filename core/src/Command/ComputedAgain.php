<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Seal\BagWriter;
use NineTally\Core\Seal\CheckLine;
use NineTally\Core\Tally\EngineVersion;
use NineTally\Core\Tally\Workspace;

/**
 * Computes the tally of a pack once more, from the deliveries in it, and holds what comes out against what the engine gave then. Under
 * the same engine every byte must be the same; under another the classes of rows are compared, and the causes too where their catalogue
 * is the same.
 */
final readonly class ComputedAgain
{
    /** Below data/: what the tally is made of, and what the engine gave. */
    private const MADE_OF = 'tally';

    private const GIVEN = 'engine';

    private const SUMMARY = 'summary.json';

    private const PIECE = 1_048_576;

    private function __construct(private \ZipArchive $zip, private string $folder) {}

    /**
     * @param  string  $path  of a pack that was checked and fits
     * @return list<CheckLine>
     */
    public static function of(string $path): array
    {
        $zip = new \ZipArchive;
        $zip->open($path, \ZipArchive::RDONLY);
        $again = new self($zip, explode('/', (string) $zip->getNameIndex(0))[0]);
        $work = Workspace::make();
        try {
            return $again->compared($work->path);
        } finally {
            $work->remove();
            $zip->close();
        }
    }

    /** @return list<CheckLine> */
    private function compared(string $work): array
    {
        $made = $this->names(self::MADE_OF);
        if ($made === []) {
            return [
                CheckLine::unknown(
                    'The pack has no deliveries, so the tally cannot be computed again: it is a masked one. A data owner can have one '.
                        'made with clear values.',
                ),
            ];
        }
        mkdir("{$work}/tally", 0700);
        foreach ($made as $name) {
            $this->unpack(self::MADE_OF."/{$name}", "{$work}/tally/{$name}");
        }
        $command = implode(
            ' ',
            array_map(escapeshellarg(...), [...Launcher::command(), 'tally', "--from={$work}/tally", "--out={$work}/out"]),
        );
        exec("{$command} 2>&1 >/dev/null", $said, $status);
        if ($status > TallyCommand::DIFFERENCES) {
            return [CheckLine::differs('data/'.self::MADE_OF, 'The tally could not be computed again: '.implode(' ', $said))];
        }
        $then = $this->summary((string) $this->zip->getFromName($this->entry(self::GIVEN.'/'.self::SUMMARY)));
        $now = $this->summary((string) file_get_contents("{$work}/out/".self::SUMMARY));

        return $then['engine'] === EngineVersion::all() ? $this->bytes("{$work}/out") : $this->classes($then, $now);
    }

    /** @return list<CheckLine> */
    private function bytes(string $out): array
    {
        $lines = [];
        $again = array_map(basename(...), glob("{$out}/*") ?: []);
        foreach (array_unique([...$this->names(self::GIVEN), ...$again]) as $name) {
            $given = $this->digest(self::GIVEN."/{$name}");
            if ($given === null || $given !== @hash_file('sha256', "{$out}/{$name}")) {
                $lines[] = CheckLine::differs('data/'.self::GIVEN."/{$name}", 'The same engine gives other bytes for this file today.');
            }
        }

        return $lines === []
            ? [CheckLine::fits('The tally was computed again from the deliveries: the same engine gives the same bytes.')]
            : $lines;
    }

    /**
     * @param  array{engine: array<string, string|int>, ...}  $then
     * @param  array{engine: array<string, string|int>, ...}  $now
     * @return list<CheckLine>
     */
    private function classes(array $then, array $now): array
    {
        $apart = [];
        foreach (EngineVersion::all() as $what => $version) {
            if (($then['engine'][$what] ?? null) !== $version) {
                $apart[] = sprintf('%s %s, and it is %s here', $what, $then['engine'][$what] ?? 'not told', $version);
            }
        }
        $lines = [CheckLine::unknown('The tally was made with '.implode('; ', $apart).': bytes are not compared.')];
        $parts = ['rows', 'cells', 'values', ...($then['engine']['causes'] ?? null) === EngineVersion::all()['causes'] ? ['patterns'] : []];
        foreach ($parts as $part) {
            $lines[] = ($then[$part] ?? null) === ($now[$part] ?? null)
                ? CheckLine::fits("Computed again: {$part} are the same.")
                : CheckLine::differs('data/'.self::GIVEN.'/'.self::SUMMARY, "Computed again: {$part} are not what they were.");
        }

        return $lines;
    }

    /** @return list<string> files below a folder of the payload */
    private function names(string $folder): array
    {
        $names = [];
        $begins = $this->entry("{$folder}/");
        for ($index = 0; $index < $this->zip->numFiles; $index++) {
            $name = (string) $this->zip->getNameIndex($index);
            $file = substr($name, strlen($begins));
            if (str_starts_with($name, $begins) && $file !== '' && ! str_contains($file, '/') && preg_match(BagWriter::NAME, $file) === 1) {
                $names[] = $file;
            }
        }

        return $names;
    }

    private function unpack(string $name, string $path): void
    {
        $from = $this->zip->getStream($this->entry($name));
        $to = fopen($path, 'wb');
        while ($from !== false && $to !== false && ! feof($from)) {
            fwrite($to, (string) fread($from, self::PIECE));
        }
    }

    private function digest(string $name): ?string
    {
        $from = $this->zip->getStream($this->entry($name));
        if ($from === false) {
            return null;
        }
        $hash = hash_init('sha256');
        hash_update_stream($hash, $from);

        return hash_final($hash);
    }

    private function entry(string $name): string
    {
        return "{$this->folder}/data/{$name}";
    }

    /** @return array{engine: array<string, string|int>, ...} */
    private function summary(string $json): array
    {
        $summary = json_decode($json, true);
        $engine = is_array($summary) && is_array($summary['engine'] ?? null) ? $summary['engine'] : [];

        /** @var array{engine: array<string, string|int>, ...} */
        return ['engine' => $engine] + (is_array($summary) ? $summary : []);
    }
}
