<?php

declare(strict_types=1);

namespace App\Http\Requests\Tally;

use App\Actions\Tally\ChosenDeliveries;
use Illuminate\Foundation\Http\FormRequest;

final class StartRunRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'sourceDelivery' => ['sometimes', 'integer', 'min:1'],
            'targetDelivery' => ['sometimes', 'integer', 'min:1'],
            'name' => ['sometimes', 'string', 'max:100'],
        ];
    }

    public function chosen(): ChosenDeliveries
    {
        return new ChosenDeliveries($this->number('sourceDelivery'), $this->number('targetDelivery'));
    }

    public function name(): ?string
    {
        $name = $this->string('name')->trim()->toString();

        return $name === '' ? null : $name;
    }

    private function number(string $field): ?int
    {
        return $this->has($field) ? $this->integer($field) : null;
    }
}
