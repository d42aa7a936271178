<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;

/**
 * A folder that holds all that a tally was made of: the plan, the parts of both sides and of the references with how each is read, the
 * records of other datasets, and the parameters. "tally.json" says what is what; paths in it are relative to the folder.
 *
 * @phpstan-type PartDocument array{file: string, name?: string, label?: string, format?: FormatDocument}
 * @phpstan-import-type FormatDocument from PartFormat
 *
 * @phpstan-type SideDocument array{labelColumn?: string|null, parts: non-empty-list<PartDocument>}
 */
final readonly class TallyFolder
{
    public const FILE = 'tally.json';

    public const PLAN = 'plan.json';

    /**
     * @param  array<string, SideOption>  $references
     * @param  array<string, string>  $parameters
     * @param  array<string, array<string, SideOption>>  $records  of other datasets, by name and side
     */
    private function __construct(
        public SideOption $source,
        public SideOption $target,
        public string $plan,
        public array $references,
        public array $parameters,
        public array $records,
    ) {}

    /** @throws UnusablePlan when the folder is none */
    public static function read(string $folder): self
    {
        $path = "{$folder}/".self::FILE;
        /**
         * @var array{source: SideDocument, target: SideDocument, references?: array<string, SideDocument>, parameters?: array<string,
         *     string>, records?: array<string, array<string, SideDocument>>}|null $document
         */
        $document = json_decode((string) @file_get_contents($path), true);
        if (! isset($document['source']['parts'][0], $document['target']['parts'][0])) {
            throw UnusablePlan::because([
                new Problem(
                    '',
                    sprintf(
                        '"%s" holds no tally: %s is not there, or does not name the parts of both sides. Name a folder that a tally was '.
                            'written to.',
                        $folder,
                        self::FILE,
                    ),
                ),
            ]);
        }
        $references = [];
        foreach ($document['references'] ?? [] as $name => $reference) {
            $references[$name] = self::side($folder, $reference);
        }

        return new self(
            self::side($folder, $document['source']),
            self::side($folder, $document['target']),
            "{$folder}/".self::PLAN,
            $references,
            $document['parameters'] ?? [],
            array_map(
                static fn(array $sides): array => array_map(static fn(array $side): SideOption => self::side($folder, $side), $sides),
                $document['records'] ?? [],
            ),
        );
    }

    /** @param SideDocument $side */
    private static function side(string $folder, array $side): SideOption
    {
        return new SideOption(
            array_map(
                static fn(array $part): PartOption => new PartOption(
                    "{$folder}/{$part['file']}",
                    $part['name'] ?? $part['file'],
                    $part['label'] ?? $part['file'],
                    isset($part['format']) ? self::format($folder, $part['file'], $part['format']) : null,
                ),
                $side['parts'],
            ),
            $side['labelColumn'] ?? null,
        );
    }

    /**
     * @param  FormatDocument  $format
     *
     * @throws UnusablePlan
     */
    private static function format(string $folder, string $file, array $format): PartFormat
    {
        try {
            return PartFormat::fromArray($format);
        } catch (\ValueError | \TypeError | \UnexpectedValueException) {
            throw UnusablePlan::because([
                new Problem(
                    '',
                    sprintf(
                        'In "%s/%s" the format of "%s" cannot be used. Take it out, and it is found from the file.',
                        $folder,
                        self::FILE,
                        $file,
                    ),
                ),
            ]);
        }
    }
}
