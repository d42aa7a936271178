<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Queries\Review\Record;
use App\Queries\Review\RecordField;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;

/** @property Record $resource */
final class RecordResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $row = $this->resource->row;
        $refusal = $row->refusal === null ? null : explode("\n", $row->refusal, 2);

        return [
            'sequence' => $row->sequence,
            'class' => $row->class,
            'side' => $row->side,
            'key' => $row->key,
            'sourceRows' => $row->sourceRows,
            'targetRows' => $row->targetRows,
            'sourceLine' => $row->sourceLine,
            'targetLine' => $row->targetLine,
            'sourceFile' => $this->resource->files['source'],
            'targetFile' => $this->resource->files['target'],
            'decision' => $row->decision->value,
            'rulingId' => $row->rulingId,
            'earlier' => $row->earlier?->toArray(),
            'remark' => $row->remark,
            'refusal' => $refusal === null ? null : ['sentence' => $refusal[0], 'raw' => $refusal[1] ?? ''],
            'fields' => array_map($this->field(...), $this->resource->fields),
        ];
    }

    /** @return array<string, mixed> */
    private function field(RecordField $field): array
    {
        $cell = $field->finding;

        return [
            'role' => $field->role,
            'source' => $field->source,
            'target' => $field->target,
            'sourceValue' => $field->sourceValue,
            'targetValue' => $field->targetValue,
            'finding' => $cell === null ? null : [
                'sequence' => $cell->sequence,
                'pattern' => $cell->pattern,
                'class' => $cell->class,
                'cause' => $cell->cause,
                'sentence' => $this->sentence($cell->cause, $cell->facts, (string) $field->sourceValue, (string) $field->targetValue),
                'decision' => $cell->decision->value,
                'rulingId' => $cell->rulingId,
                'earlier' => $cell->earlier?->toArray(),
            ],
        ];
    }

    /**
     * The words of the cause; of near texts also which letters became which, as they were delivered.
     *
     * @param  array<string, string|int>  $facts
     */
    private function sentence(string $cause, array $facts, string $source, string $target): string
    {
        $sentence = CauseId::sentenceFor($cause, $facts);
        if ($cause !== CauseId::NearText->value) {
            return $sentence;
        }
        $letters = array_map(static fn(array $edit): string => match (true) {
            $edit[0] === '' => sprintf('"%s" added', $edit[1]),
            $edit[1] === '' => sprintf('"%s" left out', $edit[0]),
            default => sprintf('"%s" became "%s"', ...$edit),
        }, (new CauseCatalogue)->letters($source, $target));

        return $sentence.($letters === [] ? '' : ': '.implode(', ', $letters));
    }
}
