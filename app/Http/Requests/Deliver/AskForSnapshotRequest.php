<?php

declare(strict_types=1);

namespace App\Http\Requests\Deliver;

use App\Adapters\Deliveries\QuerySources;
use App\Models\Dataset;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use NineTally\Core\Row\Side;

final class AskForSnapshotRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(QuerySources $sources): array
    {
        $dataset = $this->route('dataset');

        return [
            'side' => ['required', 'in:source,target'],
            'source' => ['required', 'string', Rule::in($dataset instanceof Dataset ? $sources->names($dataset->migration) : [])],
            'sql' => ['required', 'string', 'max:20000'],
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
}
