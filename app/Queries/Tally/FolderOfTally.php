<?php

declare(strict_types=1);

namespace App\Queries\Tally;

use App\Adapters\Deliveries\MatchedTable;
use App\Adapters\Storage\BlobStore;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\Tally;
use NineTally\Core\Command\TallyFolder;
use NineTally\Core\Plan\CanonicalJson;

/**
 * All that a tally was made of, as the command line reads it from a folder: the plan, the parts of both sides and of the references byte
 * for byte, how each part is read, and the parameters.
 */
final readonly class FolderOfTally
{
    public function __construct(private BlobStore $blobs, private MatchedTable $matched) {}

    /** @return array{texts: array<string, string>, files: array<string, string>} by the name of each: its content; the path of its bytes */
    public function of(Tally $tally): array
    {
        $run = $tally->run;
        $files = $references = [];
        $number = 0;
        foreach ($run->reference_deliveries as $name => $delivery) {
            $references[$name] = $this->side(Delivery::query()->with('parts')->findOrFail($delivery), 'reference-'.++$number, $files);
        }
        foreach ($run->matched_tallies as $name => $used) {
            ['path' => $path, 'name' => $called, 'format' => $format] = $this->matched->part($used);
            $file = 'matched-'.++$number.'.csv';
            $files[$file] = $path;
            $references[$name] = ['labelColumn' => null, 'parts' => [
                ['file' => $file, 'name' => $called, 'label' => '', 'format' => $format->toArray()],
            ]];
        }
        $records = [];
        foreach ($run->record_deliveries as $name => $sides) {
            foreach ($sides as $side => $delivery) {
                $records[$name][$side] = $this->side(
                    Delivery::query()->with('parts')->findOrFail($delivery),
                    'records-'.++$number."-{$side}",
                    $files,
                );
            }
        }
        $document = CanonicalJson::of([
            'source' => $this->side($tally->sourceDelivery->load('parts'), 'source', $files),
            'target' => $this->side($tally->targetDelivery->load('parts'), 'target', $files),
            ...($references === [] ? [] : ['references' => $references]),
            ...($records === [] ? [] : ['records' => $records]),
            ...($run->parameters === [] ? [] : ['parameters' => $run->parameters]),
        ]);

        return [
            'texts' => [TallyFolder::PLAN => $tally->planVersion->document."\n", TallyFolder::FILE => "{$document}\n"],
            'files' => $files,
        ];
    }

    /** @param string $folder the folder as a shell is to be told it */
    public static function command(string $folder): string
    {
        return sprintf('core/bin/nine-tally tally --from=%s --out=%s', escapeshellarg($folder), escapeshellarg("{$folder}-again"));
    }

    /**
     * @param  array<string, string>  $files
     * @return array{labelColumn: string|null, parts: list<array{file: string, name: string, label: string, format: array<string, mixed>}>}
     */
    private function side(Delivery $delivery, string $name, array &$files): array
    {
        return [
            'labelColumn' => $delivery->part_label_column,
            'parts' => array_values(
                $delivery->parts
                    ->map(function (DeliveryPart $part) use ($name, &$files): array {
                        preg_match('/\.[a-z0-9]{1,8}(?=$|, sheet )/i', $part->file_name, $ending);
                        $file = "{$name}-{$part->number}".strtolower($ending[0] ?? '');
                        $files[$file] = $this->blobs->path($part->digest);

                        return ['file' => $file, 'name' => $part->file_name, 'label' => $part->part_label, 'format' => $part->format];
                    })->all()
            )];
    }
}
