<?php

declare(strict_types=1);

namespace App\Http\Requests\Deliver;

use App\Adapters\Sources\SourceKind;
use App\Adapters\Sources\Sources;
use App\Models\Dataset;
use App\Models\Receipt;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use NineTally\Core\Row\Side;

/**
 * Rows of a query, or of a table that was chosen.
 *
 * @phpstan-import-type Query from Receipt
 */
final class AskForSnapshotRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(Sources $sources): array
    {
        $dataset = $this->route('dataset');
        $feeds = $dataset instanceof Dataset ? $sources->ofKind($dataset->migration, SourceKind::Feed) : [];

        return [
            'side' => ['required', 'in:source,target'],
            'source' => ['required', 'string', Rule::in($dataset instanceof Dataset ? $sources->names($dataset->migration) : [])],
            // Of a feed nothing needs to be added to its address.
            'sql' => [
                Rule::requiredIf(! $this->has('table') && ! in_array($this->source(), $feeds, true)),
                'nullable',
                'string',
                'max:20000',
            ],
            'values' => ['array', 'max:100'],
            'values.*' => ['nullable', 'string', 'max:10000'],
            'table' => ['array:name,columns,where,orderBy'],
            'table.name' => ['required_with:table', 'string', 'max:200'],
            'table.columns' => ['array', 'max:2000'],
            'table.columns.*' => ['string', 'max:200'],
            'table.where' => ['nullable', 'string', 'max:5000'],
            'table.orderBy' => ['array', 'max:50'],
            'table.orderBy.*' => ['string', 'max:200'],
        ];
    }

    public function side(): Side
    {
        return Side::from($this->string('side')->toString());
    }

    public function source(): string
    {
        return $this->string('source')->toString();
    }

    public function sql(): string
    {
        return $this->string('sql')->toString();
    }

    /**
     * @param  string  $sql  of the table, where one was chosen
     * @return Query
     */
    public function asked(string $sql): array
    {
        /** @var array<string, string|null> $values */
        $values = $this->validated('values') ?? [];

        return ['source' => $this->source(), 'sql' => $sql] + ($values === [] ? [] : ['values' => array_map(strval(...), $values)]);
    }

    /** @return array{name: string, columns?: list<string>, where?: string|null, orderBy?: list<string>}|null */
    public function table(): ?array
    {
        /** @var array{name: string, columns?: list<string>, where?: string|null, orderBy?: list<string>}|null $table */
        $table = $this->validated('table');

        return $table;
    }
}
